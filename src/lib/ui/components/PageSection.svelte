<script lang="ts">
  import type { Snippet } from 'svelte';

  /** A titled section of a page, with room for its main action beside the title. A list in it has a line to each entry. */
  type Props = { title: string; width?: number; action?: Snippet; children: Snippet };
  let { title, width = 760, action, children }: Props = $props();
  const id = $props.id();
</script>

<section aria-labelledby={id} style:max-width="{width}px">
  <header>
    <h2 {id}>{title}</h2>
    {@render action?.()}
  </header>
  {@render children()}
</section>

<style>
  section {
    display: grid;
    gap: 10px;
  }
  header {
    display: flex;
    align-items: center;
    gap: 14px;
  }
  h2 {
    font-size: 16px;
  }
  section :global(:is(ul, ol).lines) {
    width: 100%;
    margin: 0;
    padding: 0;
    border: 1px solid var(--rule);
    background: var(--card);
    list-style: none;
  }
  section :global(.lines > li) {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 10px;
    min-height: 34px;
    padding: 5px 12px;
  }
  section :global(.lines > li + li) {
    border-top: 1px solid var(--rule);
  }
  /* A sentence with numbers in it. */
  section :global(.line) {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 6px;
  }
</style>

<script lang="ts">
  import type { Snippet } from 'svelte';

  /** A titled section of a page, with room for its main action beside the title. */
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
  /* A sentence with numbers in it. */
  section :global(.line) {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 6px;
  }
</style>

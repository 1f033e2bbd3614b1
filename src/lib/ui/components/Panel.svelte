<script lang="ts">
  import type { Snippet } from 'svelte';

  /** A titled part of a side panel, with room for an action or a note beside its title. */
  type Props = { title: string; aside?: Snippet; children: Snippet };
  let { title, aside, children }: Props = $props();
</script>

<section>
  <header>
    <h2>{title}</h2>
    {#if aside}<div class="aside">{@render aside()}</div>{/if}
  </header>
  {@render children()}
</section>

<style>
  section {
    padding: 14px 12px;
    border-bottom: 1px solid var(--rule);
  }
  header {
    display: flex;
    align-items: baseline;
    justify-content: space-between;
    gap: 8px;
    margin-bottom: 8px;
  }
  h2 {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .aside {
    color: var(--muted);
    white-space: nowrap;
  }
  .aside :global(.add) {
    color: var(--kelp);
    font-weight: 600;
  }
</style>

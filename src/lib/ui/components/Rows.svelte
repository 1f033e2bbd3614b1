<script lang="ts">
  import type { Snippet } from 'svelte';

  /** Names at the left, values at the right: children come in pairs, a <span> and its control. */
  type Props = { children: Snippet };
  let { children }: Props = $props();
</script>

<div class="rows">{@render children()}</div>

<style>
  .rows {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 5px 10px;
    align-items: baseline;
    justify-items: end;
  }
  .rows > :global(:nth-child(odd)) {
    overflow: hidden;
    max-width: 150px;
    color: var(--muted);
    text-overflow: ellipsis;
    white-space: nowrap;
    justify-self: start;
  }
  .rows :global(.pair) {
    color: var(--muted);
    white-space: nowrap;
  }
  .rows :global(.pair input) {
    color: var(--ink);
  }
</style>

<script lang="ts">
  import type { Snippet } from 'svelte';

  /** Ticks below each other. */
  type Props = { children: Snippet };
  let { children }: Props = $props();
</script>

<div class="ticks">{@render children()}</div>

<style>
  .ticks {
    display: grid;
    gap: 6px;
    justify-items: start;
  }
</style>

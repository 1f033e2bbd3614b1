<script lang="ts">
  import type { LayoutSummary } from '$lib/contract/data';
  import Tick from '../components/Tick.svelte';
  import { saySize } from '../library/say';

  /** The layouts of a project with a tick each, in their order. */
  type Props = {
    label: string;
    layouts: readonly LayoutSummary[];
    /** The ids of those that are ticked. */
    chosen: readonly string[];
    onset: (chosen: readonly string[]) => void;
  };
  let { label, layouts, chosen, onset }: Props = $props();

  function tick(id: string, on: boolean): void {
    const wanted = new Set(on ? [...chosen, id] : chosen.filter((one) => one !== id));
    onset(layouts.map((one) => one.id).filter((one) => wanted.has(one)));
  }
</script>

<div class="list" role="group" aria-label={label}>
  {#each layouts as layout (layout.id)}
    <div class="one">
      <Tick label={layout.name} checked={chosen.includes(layout.id)} onset={(on) => tick(layout.id, on)} />
      <span class="mono">{saySize(layout, layout.measure)}</span>
    </div>
  {/each}
</div>

<style>
  .list {
    max-height: 220px;
    margin-bottom: 10px;
    overflow: auto;
  }
  .one {
    display: flex;
    align-items: baseline;
    justify-content: space-between;
    gap: 12px;
    padding: 2px 0;
  }
  .one > :global(label) {
    min-width: 0;
  }
  .mono {
    color: var(--muted);
    font-size: var(--small);
    white-space: nowrap;
  }
</style>

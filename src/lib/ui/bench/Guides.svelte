<script lang="ts">
  import type { Guide } from '$lib/core/recipe/recipe';
  import { dragging } from '../layout/dragging';
  import type { View } from '../layout/view.svelte';

  /** A grid and guides over a drawing. Guides are dragged; one that leaves the view is taken away. */
  type Props = {
    grid: number | null;
    guides: readonly Guide[];
    view: View;
    width: number;
    height: number;
    onset: (guides: Guide[], live: boolean) => void;
    oncancel: () => void;
  };
  let { grid, guides, view, width, height, onset, oncancel }: Props = $props();
  const id = $props.id();

  /** Lines nearer than this on the screen are thinned out: every fifth, every twenty-fifth … is shown. */
  const pitch = $derived.by(() => {
    if (grid === null) return 0;
    let step = grid * view.zoom;
    while (step < 5) step *= 5;
    return step;
  });

  function pulling(index: number) {
    let now: Guide[] = [];
    return dragging({
      view,
      start: () => {
        now = [...guides];
      },
      move: (at) => {
        const guide = now[index];
        if (!guide) return;
        const place = grid === null ? at[guide.axis] : Math.round(at[guide.axis] / grid) * grid;
        now[index] = { ...guide, at: place };
        onset([...now], true);
      },
      end: () => {
        onset(
          now.filter((guide) => {
            const screen = view.toScreen({ x: guide.at, y: guide.at })[guide.axis];
            return screen >= 0 && screen <= (guide.axis === 'x' ? width : height);
          }),
          false,
        );
      },
      cancel: oncancel,
    });
  }
</script>

{#if pitch > 0}
  <pattern
    id="{id}-grid"
    width={pitch}
    height={pitch}
    patternUnits="userSpaceOnUse"
    x={view.pan.x}
    y={view.pan.y}
  >
    <path class="grid" d="M0 0V{pitch}M0 0H{pitch}" />
  </pattern>
  <rect class="sheet" {width} {height} fill="url(#{id}-grid)" />
{/if}
{#each guides as guide, index (index)}
  {@const at = view.toScreen({ x: guide.at, y: guide.at })[guide.axis]}
  {@const d = guide.axis === 'x' ? `M${at} 0V${height}` : `M0 ${at}H${width}`}
  <path class="guide" {d} />
  <path class="grip {guide.axis}" role="presentation" data-guide={guide.axis} {d} {@attach pulling(index)}>
    <title>Drag the guide; out of the view takes it away</title>
  </path>
{/each}

<style>
  .grid {
    fill: none;
    stroke: rgb(128 136 134 / 50%);
    stroke-width: 1px;
  }
  .sheet {
    pointer-events: none;
  }
  .guide {
    stroke: var(--kelp);
    opacity: 0.75;
    stroke-width: 1px;
    pointer-events: none;
  }
  .grip {
    stroke: transparent;
    stroke-width: 7px;
    cursor: ew-resize;
  }
  .grip.y {
    cursor: ns-resize;
  }
</style>

<script lang="ts">
  import type { Point } from '$lib/core/geom/point';
  import { fromPx } from '$lib/core/num/length';
  import type { View } from '../layout/view.svelte';
  import type { BenchEditor } from './editor.svelte';
  import { edging } from './piece-drags';
  import { neighbourOffsets } from './unit-outline';

  /** The unit's edges, measured; each can be dragged, and the art stays where it is. */
  type Props = { editor: BenchEditor; view: View; outline: Point[]; width: number; height: number };
  let { editor, view, outline, width, height }: Props = $props();

  const scene = $derived(editor.stillScene);
  const corners = $derived(outline.map((corner) => view.toScreen(corner)));
  const path = (points: Point[]): string => `M${points.map(({ x, y }) => `${x} ${y}`).join('L')}Z`;
  const neighbours = $derived(
    neighbourOffsets(scene)
      .map((offset) =>
        outline.map((corner) => view.toScreen({ x: corner.x + offset.x, y: corner.y + offset.y })),
      )
      .filter((points) =>
        points.some(({ x, y }) => x > -width && x < 2 * width && y > -height && y < 2 * height),
      ),
  );
  const draggable = $derived(editor.kind === 'composed' && editor.still.repeat.kind !== 'group');
  const say = (px: number): string => `${Number(fromPx(px, editor.measure).toFixed(2))} ${editor.measure}`;
  const sizes = $derived.by(() => {
    const [o, u, , v] = outline;
    if (!o || !u || !v) return { across: '', down: '' };
    return { across: say(Math.hypot(u.x - o.x, u.y - o.y)), down: say(Math.hypot(v.x - o.x, v.y - o.y)) };
  });
  const middle = (one: Point | undefined, other: Point | undefined): Point => ({
    x: ((one?.x ?? 0) + (other?.x ?? 0)) / 2,
    y: ((one?.y ?? 0) + (other?.y ?? 0)) / 2,
  });
  /** Which corners each edge joins. The list never changes: a drag must not lose the line it holds. */
  const SIDES = [
    ['top', 0, 1],
    ['right', 1, 2],
    ['bottom', 3, 2],
    ['left', 0, 3],
  ] as const;
  const top = $derived(middle(corners[0], corners[1]));
  const right = $derived(middle(corners[1], corners[2]));
</script>

{#each neighbours as points, index (index)}
  <path class="neighbour" d={path(points)} />
{/each}
<path class="halo" d={path(corners)} />
<path class="edge" d={path(corners)} />
<g class="measure" transform="translate({top.x} {top.y - 14})">
  <rect x="-40" y="-11" width="80" height="18" /><text text-anchor="middle" y="2">{sizes.across}</text>
</g>
<g class="measure" transform="translate({right.x + 48} {right.y})">
  <rect x="-40" y="-11" width="80" height="18" /><text text-anchor="middle" y="2">{sizes.down}</text>
</g>
{#if draggable}
  {#each SIDES as [side, from, to] (side)}
    <line
      class="pull {side}"
      role="presentation"
      data-edge={side}
      x1={corners[from]?.x}
      y1={corners[from]?.y}
      x2={corners[to]?.x}
      y2={corners[to]?.y}
      {@attach edging({ editor, view, onsnap: () => undefined }, side)}
    >
      <title>Drag to change the unit; the art stays where it is</title>
    </line>
  {/each}
{/if}

<style>
  .neighbour,
  .halo,
  .edge {
    fill: none;
    pointer-events: none;
  }
  .halo {
    stroke: #fff;
    stroke-width: 4px;
  }
  .edge {
    stroke: var(--kelp);
    stroke-width: 2px;
  }
  .neighbour {
    stroke: var(--kelp);
    stroke-width: 1px;
    stroke-dasharray: 4 4;
    opacity: 0.7;
  }
  .pull {
    stroke: transparent;
    stroke-width: 9px;
    cursor: ew-resize;
  }
  .pull.top,
  .pull.bottom {
    cursor: ns-resize;
  }
  .pull:hover {
    stroke: rgb(13 90 80 / 25%);
  }
  .measure {
    pointer-events: none;
  }
  .measure rect {
    fill: #fff;
  }
  .measure text {
    fill: var(--ink);
    font: 500 12px var(--mono);
  }
</style>

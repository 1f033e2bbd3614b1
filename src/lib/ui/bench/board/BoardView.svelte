<script lang="ts">
  import { grow } from '$lib/core/geom/box';
  import { formatPath } from '$lib/core/geom/path';
  import type { Point } from '$lib/core/geom/point';
  import { compileElement } from '$lib/core/scene/motif';
  import { elementsBox } from '$lib/core/scene/drawing';
  import { elementMarkup } from '$lib/core/svg/pieces';
  import { wheelView, type View } from '../../layout/view.svelte';
  import Guides from '../Guides.svelte';
  import type { BenchShow } from '../show.svelte';
  import type { Board } from './board.svelte';
  import { boardDrag } from './board-drags';
  import { finishPath } from './board-drawing';
  import { NO_PREVIEW, type BoardPreview } from './board-snap';
  import BoardHandles from './BoardHandles.svelte';
  import BoardPoints from './BoardPoints.svelte';
  import type { Pen } from '../../state/pen.svelte';

  /** The drawing board: one motif at work, in its own measures, with grid and guides. */
  type Props = { board: Board; view: View; pen: Pen; show: BenchShow; ontext: (at: Point) => void };
  let { board, view, pen, show, ontext }: Props = $props();

  let width = $state(0);
  let height = $state(0);
  let fitted = false;
  let preview: BoardPreview = $state.raw(NO_PREVIEW);
  const editor = $derived(board.editor);
  const aids = $derived(editor.composed.aids);
  const ground = $derived(editor.ground?.colour ?? show.background);
  const context = $derived({ board, view, pen, preview: (shown: BoardPreview) => (preview = shown), ontext });
  const drawn = $derived(
    board.elements.map((element) => {
      const compiled = compileElement(element);
      return compiled ? elementMarkup(compiled, editor.colours) : '';
    }),
  );
  const origin = $derived(view.toScreen({ x: 0, y: 0 }));
  const place = $derived(`translate(${view.pan.x} ${view.pan.y}) scale(${view.zoom})`);

  $effect(() => {
    if (width > 0 && height > 0 && !fitted) {
      fitted = true;
      fit();
    }
  });
  export function fit(): void {
    const { grid } = aids;
    const art = elementsBox(board.elements) ?? {
      x: -6 * grid,
      y: -6 * grid,
      width: 12 * grid,
      height: 12 * grid,
    };
    const box = grow(art, Math.max(art.width, art.height) * 0.15);
    view.fit({ width, height }, box, { side: 60, top: 60, foot: 50 });
    view.panBy(-box.x * view.zoom, -box.y * view.zoom);
  }
  const finish = (): void => finishPath(board, pen);
</script>

<!-- The board takes keys itself; every element is also listed at the left. -->
<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div
  class="board"
  class:drawing={board.tool !== 'choose' && board.tool !== 'points'}
  role="application"
  aria-label="Drawing board. Arrow keys move what is chosen; press ? for all keys"
  tabindex="0"
  bind:clientWidth={width}
  bind:clientHeight={height}
  style:background={ground}
  ondblclick={() => board.tool === 'path' && finish()}
>
  <svg role="img" aria-label="The motif" {@attach wheelView(view)} {@attach boardDrag(context)}>
    <g transform={place}>
      {#each drawn as markup, index (index)}
        <!-- eslint-disable-next-line svelte/no-at-html-tags -- numbers and hex colours only, written by core/svg -->
        <g data-element={index}>{@html markup}</g>
      {/each}
    </g>
    <Guides
      grid={aids.showGrid ? aids.grid : null}
      guides={board.guides}
      {view}
      {width}
      {height}
      onset={(guides, live) => board.setGuides(guides, live)}
      oncancel={() => editor.history.cancel()}
    />
    <path class="axis" d="M{origin.x} 0V{height}M0 {origin.y}H{width}" />
    {#if preview.path}<path class="preview" d={formatPath(preview.path)} transform={place} />{/if}
    {#if pen.nodes.length > 0}
      <path class="preview" d={formatPath(pen.path)} transform={place} />
      {#each pen.nodes as node, index (index)}
        {@const at = view.toScreen(node.at)}
        <rect class="node" x={at.x - 3.5} y={at.y - 3.5} width="7" height="7" />
      {/each}
    {/if}
    {#if preview.marquee}
      {@const from = view.toScreen(preview.marquee)}
      <rect
        class="marquee"
        x={from.x}
        y={from.y}
        width={preview.marquee.width * view.zoom}
        height={preview.marquee.height * view.zoom}
      />
    {/if}
    {#if preview.snapped.x !== null}
      {@const at = view.toScreen({ x: preview.snapped.x, y: 0 })}
      <path class="snapped" d="M{at.x} 0V{height}" />
    {/if}
    {#if preview.snapped.y !== null}
      {@const at = view.toScreen({ x: 0, y: preview.snapped.y })}
      <path class="snapped" d="M0 {at.y}H{width}" />
    {/if}
    {#if board.tool === 'points'}<BoardPoints {context} />
    {:else if board.tool === 'choose'}<BoardHandles {context} />{/if}
  </svg>
  {#if board.tool === 'path' && pen.nodes.length > 0}
    <p class="hint">
      Press to set points, drag to bend, Shift for steps of 15°. <button type="button" onclick={finish}
        >Finish (Enter)</button
      >
    </p>
  {/if}
</div>

<style>
  .board {
    position: absolute;
    inset: 0;
    overflow: hidden;
    touch-action: none;
    user-select: none;
  }
  .board:focus-visible {
    outline-offset: -3px;
  }
  .drawing {
    cursor: crosshair;
  }
  /* A tool that draws has the board to itself. */
  .drawing :global([data-guide]) {
    pointer-events: none;
  }
  svg {
    display: block;
    width: 100%;
    height: 100%;
  }
  .axis {
    stroke: rgb(13 90 80 / 45%);
    stroke-width: 1px;
    stroke-dasharray: 6 3 1 3;
    pointer-events: none;
  }
  .preview {
    fill: rgb(13 90 80 / 12%);
    stroke: var(--kelp);
    stroke-width: 1.5px;
    vector-effect: non-scaling-stroke;
    pointer-events: none;
  }
  .node {
    fill: #fff;
    stroke: var(--kelp);
    stroke-width: 1.5px;
    pointer-events: none;
  }
  .marquee {
    fill: rgb(13 90 80 / 8%);
    stroke: var(--kelp);
    stroke-dasharray: 3 3;
    pointer-events: none;
  }
  .snapped {
    stroke: var(--signal);
    stroke-width: 1px;
    pointer-events: none;
  }
  .hint {
    position: absolute;
    bottom: 12px;
    left: 50%;
    padding: 6px 12px;
    border-radius: 8px;
    background: var(--card);
    box-shadow: var(--shadow);
    transform: translateX(-50%);
  }
  .hint button {
    border: 0;
    background: none;
    color: var(--kelp);
    font-weight: 600;
    cursor: pointer;
  }
</style>

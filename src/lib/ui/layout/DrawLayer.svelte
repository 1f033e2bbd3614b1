<script lang="ts">
  import { formatPath, transformPath } from '$lib/core/geom/path';
  import { chain, scaling, translation } from '$lib/core/geom/affine';
  import { boxOfPoints, grow } from '$lib/core/geom/box';
  import { pointInSteps } from '$lib/core/geom/snap';
  import { LIMITS } from '$lib/core/recipe/limits';
  import type { Point } from '$lib/core/geom/point';
  import { Pen } from '../state/pen.svelte';
  import { dragging } from './dragging';
  import type { LayoutEditor } from './editor.svelte';
  import { addFreehand, addLine, addPath, addStroke, meetsPage, type BrushNumbers } from './shapes';
  import type { View } from './view.svelte';

  /** Draws lines, paths point by point, freehand outlines and brush strokes over the stage; text is set where one presses. */
  type Props = {
    editor: LayoutEditor;
    view: View;
    width: number;
    height: number;
    brush: BrushNumbers;
    ontext: (at: Point) => void;
  };
  let { editor, view, width, height, brush, ontext }: Props = $props();

  const pen = new Pen();
  let line: Point[] = $state.raw([]);
  let pointer: Point | null = $state(null);
  const toScreen = $derived(chain(translation(view.pan.x, view.pan.y), scaling(view.zoom)));
  const drawn = $derived(
    line
      .map((point) => view.toScreen(point))
      .map(({ x, y }, index) => `${index === 0 ? 'M' : 'L'}${x} ${y}`)
      .join(''),
  );
  const penPath = $derived(pen.nodes.length > 0 ? formatPath(transformPath(toScreen, pen.path)) : '');

  const straight = (from: Point, to: Point, event: PointerEvent): Point =>
    event.shiftKey ? pointInSteps(from, to, 15) : to;

  function drawing() {
    return dragging({
      view,
      start: (at, event) => {
        if (editor.tool === 'pen') {
          if (pen.closes(at, 8 / view.zoom)) {
            finish(true);
            return 'done';
          }
          if (pen.nodes.length === 0 && !meetsPage(editor, { ...at, width: 0, height: 0 })) return 'done';
          pen.add(event.shiftKey ? pen.inSteps(at, 15) : at);
        } else line = [at];
      },
      move: (at, event) => {
        if (editor.tool === 'pen') pen.pull(at);
        else if (editor.tool === 'line') line = [line[0] ?? at, straight(line[0] ?? at, at, event)];
        else if (line.length < LIMITS.strokePoints) {
          const last = line[line.length - 1];
          if (!last || Math.hypot(at.x - last.x, at.y - last.y) * view.zoom >= 2) line = [...line, at];
        }
      },
      end: () => {
        const points = line;
        line = [];
        const [from, to] = [points[0], points[points.length - 1]];
        const box = boxOfPoints(editor.tool === 'text' ? points.slice(0, 1) : points);
        const reach = editor.tool === 'brush' ? brush.size / 2 : 0;
        if (!box || !from || !to || !meetsPage(editor, grow(box, reach))) return;
        if (editor.tool === 'text') return ontext(from);
        if (editor.tool === 'brush') addStroke(editor, points, brush);
        else if (points.length === 1) return;
        else if (editor.tool === 'freehand') addFreehand(editor, points, 1.5 / view.zoom);
        else addLine(editor, from, to);
        editor.hand.used();
      },
      cancel: () => (line = []),
    });
  }

  function finish(closed: boolean): void {
    const path = pen.finish(closed);
    if (!path) return;
    addPath(editor, path);
    editor.hand.used();
  }
  /** Enter ends a path open, Escape gives it up; both only while one is drawn. */
  function onkeydown(event: KeyboardEvent): void {
    if (pen.nodes.length === 0 || (event.key !== 'Enter' && event.key !== 'Escape')) return;
    event.preventDefault();
    event.stopPropagation();
    if (event.key === 'Enter') finish(false);
    else pen.cancel();
  }
</script>

<svelte:window onkeydowncapture={onkeydown} />

<!-- svelte-ignore a11y_no_static_element_interactions -->
<rect
  class="catch"
  class:brush={editor.tool === 'brush'}
  {width}
  {height}
  data-draw-layer
  onpointermove={(event) => {
    const box = event.currentTarget.getBoundingClientRect();
    pointer = { x: event.clientX - box.left, y: event.clientY - box.top };
  }}
  onpointerleave={() => (pointer = null)}
  ondblclick={() => editor.tool === 'pen' && finish(false)}
  {@attach drawing()}
/>
{#if drawn && editor.tool === 'brush'}
  <path
    class="stroke"
    d={drawn.includes('L') ? drawn : `${drawn}l0.01 0`}
    style:stroke-width="{brush.size * view.zoom}px"
    style:filter="blur({(brush.size * view.zoom * brush.softness) / 6}px)"
  />
{:else if drawn && editor.tool !== 'text'}
  <path class="halo" d={drawn} /><path class="line" d={drawn} />
{/if}
{#if penPath}
  <path class="halo" d={penPath} /><path class="line" d={penPath} />
  {#each pen.nodes as node, index (index)}
    {@const at = view.toScreen(node.at)}
    <rect class="node" x={at.x - 4} y={at.y - 4} width="8" height="8" />
  {/each}
{/if}
{#if pointer && editor.tool === 'brush'}
  <circle class="halo" cx={pointer.x} cy={pointer.y} r={(brush.size * view.zoom) / 2} />
  <circle class="line" cx={pointer.x} cy={pointer.y} r={(brush.size * view.zoom) / 2} />
{/if}

<style>
  .catch {
    fill: transparent;
    cursor: crosshair;
  }
  .catch.brush {
    cursor: none;
  }
  .stroke {
    fill: none;
    stroke: var(--kelp);
    stroke-linecap: round;
    stroke-linejoin: round;
    opacity: 0.45;
    pointer-events: none;
  }
  .halo,
  .line {
    fill: none;
    pointer-events: none;
  }
  .halo {
    stroke: rgb(255 255 255 / 80%);
    stroke-width: 4px;
  }
  .line {
    stroke: var(--kelp);
    stroke-width: 1.5px;
  }
  .node {
    fill: #fff;
    stroke: var(--kelp);
    stroke-width: 1.5px;
    pointer-events: none;
  }
</style>

<script lang="ts">
  import { apply, chain, invert, translation } from '$lib/core/geom/affine';
  import { formatPath, transformPath } from '$lib/core/geom/path';
  import {
    insertNode,
    moveHandle,
    moveNode,
    nearestStretch,
    nodesOf,
    pathOfNodes,
    removeNode,
    setSmooth,
    type NodeRow,
    type PathNode,
  } from '$lib/core/geom/nodes';
  import type { Point } from '$lib/core/geom/point';
  import { toPx } from '$lib/core/num/length';
  import { layoutFormPath } from '$lib/core/recipe/form';
  import { frameMatrix, type Shape } from '$lib/core/recipe/layout';
  import { withOutline } from '$lib/core/recipe/transform';
  import { ARROWS } from '../state/arrows';
  import { dragging } from './dragging';
  import type { LayoutEditor } from './editor.svelte';
  import type { View } from './view.svelte';

  /** The points of a shape's outline: drag points and handles, press the line twice for a new point, a point twice to smooth it. */
  type Props = { shape: Shape; editor: LayoutEditor; view: View };
  let { shape, editor, view }: Props = $props();

  /** The outline as it was drawn, in frame px; the shape's own turn, skew and reflection come with the matrix. */
  const rowsOf = (one: Shape): NodeRow[] => nodesOf(layoutFormPath(one.form, one.width, one.height));
  const pageOf = (one: Shape) => chain(translation(one.x, one.y), frameMatrix(one));
  const rows = $derived(rowsOf(shape));
  const toPage = $derived(pageOf(shape));
  const screen = (point: Point): Point => view.toScreen(apply(toPage, point));
  const line = $derived(
    formatPath(
      transformPath(
        chain({ a: view.zoom, b: 0, c: 0, d: view.zoom, e: view.pan.x, f: view.pan.y }, toPage),
        pathOfNodes(rows),
      ),
    ),
  );

  function set(from: Shape, next: readonly NodeRow[], live: boolean): void {
    const reshaped = withOutline(from, pathOfNodes(next));
    if (reshaped) editor.change(() => reshaped, { live: true, ids: new Set([from.id]) });
    if (!live) editor.history.commit();
  }
  const replaced = (all: readonly NodeRow[], row: number, index: number, node: PathNode): NodeRow[] =>
    all.map((held, at) =>
      at === row ? { ...held, nodes: held.nodes.map((one, place) => (place === index ? node : one)) } : held,
    );

  function nodeDrag(row: number, index: number, what: 'at' | 'before' | 'after') {
    let start: Shape;
    let all: NodeRow[] = [];
    return dragging({
      view,
      start: () => {
        start = shape;
        all = rowsOf(start);
      },
      move: (at, event) => {
        const held = all[row]?.nodes[index];
        const back = invert(pageOf(start));
        if (!held || !back) return;
        const to = apply(back, at);
        const node = what === 'at' ? moveNode(held, to) : moveHandle(held, what, to, !event.altKey);
        set(start, replaced(all, row, index, node), true);
      },
      end: () => editor.history.commit(),
      cancel: () => editor.history.cancel(),
    });
  }
  function smooth(row: number, index: number): void {
    const held = rows[row];
    const node = held?.nodes[index];
    if (!held || !node) return;
    const next = setSmooth(held, index, node.before === null && node.after === null);
    set(
      shape,
      rows.map((one, at) => (at === row ? next : one)),
      false,
    );
  }
  function remove(row: number, index: number): void {
    const next = rows.flatMap((held, at) => (at === row ? (removeNode(held, index) ?? []) : [held]));
    if (next.length > 0) set(shape, next, false);
  }
  function nudge(row: number, index: number, [x, y]: readonly [number, number], times: number): void {
    const held = rows[row]?.nodes[index];
    const back = invert(toPage);
    if (!held || !back) return;
    const step = toPx(1, editor.doc.measure) * times;
    const at = apply(toPage, held.at);
    set(
      shape,
      replaced(rows, row, index, moveNode(held, apply(back, { x: at.x + x * step, y: at.y + y * step }))),
      false,
    );
  }
  function insert(event: MouseEvent): void {
    const svg = (event.currentTarget as SVGElement).ownerSVGElement?.getBoundingClientRect();
    const back = invert(toPage);
    if (!back) return;
    const at = apply(
      back,
      view.toPage({ x: event.clientX - (svg?.left ?? 0), y: event.clientY - (svg?.top ?? 0) }),
    );
    const found = rows.flatMap((held, row) => {
      const near = nearestStretch(held, at);
      return near ? [{ row, ...near }] : [];
    });
    const [best] = found.sort((one, other) => one.distance - other.distance);
    if (!best) return;
    set(
      shape,
      rows.map((held, row) => (row === best.row ? insertNode(held, best.index, best.t) : held)),
      false,
    );
  }
</script>

<path class="halo" d={line} />
<path class="line" role="presentation" d={line} ondblclick={insert} />
{#each rows as row, at (at)}
  {#each row.nodes as node, index (index)}
    {@const point = screen(node.at)}
    {#each ['before', 'after'] as const as side (side)}
      {@const handle = node[side]}
      {#if handle}
        {@const end = screen(handle)}
        <path class="arm" d="M{point.x} {point.y}L{end.x} {end.y}" />
        <circle
          class="handle"
          role="presentation"
          data-handle-of="{at},{index},{side}"
          cx={end.x}
          cy={end.y}
          r="4"
          {@attach nodeDrag(at, index, side)}
        />
      {/if}
    {/each}
    <rect
      class="node"
      role="button"
      tabindex="0"
      aria-label="Point {index + 1}. Arrows move it, Enter smooths it, Delete removes it"
      data-node="{at},{index}"
      x={point.x - 4.5}
      y={point.y - 4.5}
      width="9"
      height="9"
      rx={node.before !== null || node.after !== null ? 4.5 : 0}
      ondblclick={() => smooth(at, index)}
      onkeydown={(event) => {
        const arrow = ARROWS[event.key];
        if (arrow) nudge(at, index, arrow, event.shiftKey ? 10 : 1);
        else if (event.key === 'Enter') smooth(at, index);
        else if (event.key === 'Delete' || event.key === 'Backspace') remove(at, index);
        else return;
        event.preventDefault();
        event.stopPropagation();
      }}
      {@attach nodeDrag(at, index, 'at')}
    />
  {/each}
{/each}

<style>
  .halo,
  .line,
  .arm {
    fill: none;
  }
  .halo {
    stroke: rgb(255 255 255 / 80%);
    stroke-width: 4px;
    pointer-events: none;
  }
  .line {
    stroke: var(--kelp);
    stroke-width: 1.5px;
    pointer-events: stroke;
  }
  .arm {
    stroke: var(--kelp);
    stroke-width: 1px;
    pointer-events: none;
  }
  .handle,
  .node {
    fill: #fff;
    stroke: var(--kelp);
    stroke-width: 1.75px;
    cursor: move;
  }
  .node:focus {
    fill: var(--kelp);
  }
</style>

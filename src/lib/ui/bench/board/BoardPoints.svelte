<script lang="ts">
  import { formatPath } from '$lib/core/geom/path';
  import {
    insertNode,
    moveNode,
    type PathNode,
    nearestStretch,
    nodesOf,
    pathOfNodes,
    removeNode,
    setSmooth,
  } from '$lib/core/geom/nodes';
  import { toPx } from '$lib/core/num/length';
  import { pathOf } from '$lib/core/scene/drawing';
  import { ARROWS } from '../../state/arrows';
  import { nodeDrag, setRows, type BoardContext } from './board-drags';

  /** The points of the chosen path: drag points and handles, press the line twice for a new point, a point twice to smooth it. */
  type Props = { context: BoardContext };
  let { context }: Props = $props();

  const { board, view } = $derived(context);
  const element = $derived(board.single);
  const rows = $derived(element ? nodesOf(pathOf(element)) : []);
  const place = $derived(`translate(${view.pan.x} ${view.pan.y}) scale(${view.zoom})`);

  function smooth(row: number, index: number): void {
    const held = rows[row];
    const node = held?.nodes[index];
    if (!held || !node) return;
    const next = setSmooth(held, index, node.before === null && node.after === null);
    setRows(
      board,
      rows.map((one, at) => (at === row ? next : one)),
    );
  }
  function remove(row: number, index: number): void {
    const next = rows.flatMap((held, at) => (at === row ? (removeNode(held, index) ?? []) : [held]));
    if (next.length === 0) board.remove();
    else setRows(board, next);
  }
  function nudge(row: number, index: number, [x, y]: readonly [number, number], times: number): void {
    const { aids, measure } = board.editor.composed;
    const step = (aids.showGrid ? aids.grid : toPx(1, measure)) * times;
    const move = (node: PathNode): PathNode =>
      moveNode(node, { x: node.at.x + x * step, y: node.at.y + y * step });
    setRows(
      board,
      rows.map((held, at) =>
        at === row
          ? { ...held, nodes: held.nodes.map((node, place) => (place === index ? move(node) : node)) }
          : held,
      ),
    );
  }
  function insert(event: MouseEvent): void {
    const svg = (event.currentTarget as SVGElement).ownerSVGElement?.getBoundingClientRect();
    const at = view.toPage({ x: event.clientX - (svg?.left ?? 0), y: event.clientY - (svg?.top ?? 0) });
    let best: { row: number; index: number; t: number; distance: number } | null = null;
    rows.forEach((held, row) => {
      const found = nearestStretch(held, at);
      if (found && (!best || found.distance < best.distance)) best = { row, ...found };
    });
    const chosen = best as { row: number; index: number; t: number } | null;
    if (!chosen) return;
    setRows(
      board,
      rows.map((held, row) => (row === chosen.row ? insertNode(held, chosen.index, chosen.t) : held)),
    );
  }
</script>

{#if element}
  <path
    class="line"
    role="presentation"
    d={formatPath(pathOfNodes(rows))}
    transform={place}
    ondblclick={insert}
  />
  {#each rows as row, at (at)}
    {#each row.nodes as node, index (index)}
      {@const point = view.toScreen(node.at)}
      {#each ['before', 'after'] as const as side (side)}
        {@const handle = node[side]}
        {#if handle}
          {@const end = view.toScreen(handle)}
          <path class="arm" d="M{point.x} {point.y}L{end.x} {end.y}" />
          <circle
            class="handle"
            role="presentation"
            cx={end.x}
            cy={end.y}
            r="4"
            {@attach nodeDrag(context, at, index, side)}
          />
        {/if}
      {/each}
      <rect
        class="node"
        class:smooth={node.before !== null || node.after !== null}
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
        {@attach nodeDrag(context, at, index, 'at')}
      />
    {/each}
  {/each}
{/if}

<style>
  .line {
    fill: none;
    stroke: var(--kelp);
    stroke-width: 1.5px;
    vector-effect: non-scaling-stroke;
    cursor: copy;
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
    stroke-width: 1.5px;
    cursor: move;
  }
  .node:hover,
  .handle:hover,
  .node:focus-visible {
    fill: var(--kelp);
    outline: none;
  }
</style>

<script lang="ts">
  import { apply, applyVector, invert, type Affine } from '$lib/core/geom/affine';
  import { formatPath, transformPath } from '$lib/core/geom/path';
  import {
    addNode,
    dropNode,
    moveNode,
    pathOfNodes,
    putNode,
    toggleSmooth,
    type NodeRow,
  } from '$lib/core/geom/nodes';
  import { ARROWS } from '../state/arrows';
  import { inRun } from '../state/run';

  /** The points of an outline on a stage: drag points and handles, press the line twice for a new point, a point twice to smooth it. */
  type Props = {
    rows: readonly NodeRow[];
    /** The outline's own coordinates → px of the stage. */
    matrix: Affine;
    /** How far an arrow key takes a point, px of the stage. */
    step: number;
    /** A drag of a point or of one of its handles. */
    drag: (row: number, index: number, what: 'at' | 'before' | 'after') => (node: SVGElement) => () => void;
    /** Given other rows, as one step; none are left where the last points were removed. */
    onset: (rows: NodeRow[]) => void;
  };
  let { rows, matrix, step, drag, onset }: Props = $props();

  const line = $derived(formatPath(transformPath(matrix, pathOfNodes(rows))));
  const back = $derived(invert(matrix));

  function nudge(row: number, index: number, [x, y]: readonly [number, number], times: number): void {
    const held = rows[row]?.nodes[index];
    if (!held || !back) return;
    const by = applyVector(back, { x: x * step * times, y: y * step * times });
    const moved = moveNode(held, { x: held.at.x + by.x, y: held.at.y + by.y });
    inRun(`point ${row},${index}`, () => onset(putNode(rows, row, index, moved)));
  }
  function insert(event: MouseEvent): void {
    const svg = (event.currentTarget as SVGElement).ownerSVGElement?.getBoundingClientRect();
    if (!svg || !back) return;
    onset(addNode(rows, apply(back, { x: event.clientX - svg.left, y: event.clientY - svg.top })));
  }
  function onkey(event: KeyboardEvent, row: number, index: number): void {
    const arrow = ARROWS[event.key];
    if (arrow) nudge(row, index, arrow, event.shiftKey ? 10 : 1);
    else if (event.key === 'Enter') onset(toggleSmooth(rows, row, index));
    else if (event.key === 'Delete' || event.key === 'Backspace') onset(dropNode(rows, row, index));
    else return;
    event.preventDefault();
    event.stopPropagation();
  }
</script>

<path class="halo" d={line} />
<path class="line" role="presentation" d={line} ondblclick={insert} />
{#each rows as row, at (at)}
  {#each row.nodes as node, index (index)}
    {@const point = apply(matrix, node.at)}
    {#each ['before', 'after'] as const as side (side)}
      {@const handle = node[side]}
      {#if handle}
        {@const end = apply(matrix, handle)}
        <path class="arm" d="M{point.x} {point.y}L{end.x} {end.y}" />
        <circle
          class="handle"
          role="presentation"
          data-handle-of="{at},{index},{side}"
          cx={end.x}
          cy={end.y}
          r="4"
          {@attach drag(at, index, side)}
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
      ondblclick={() => onset(toggleSmooth(rows, at, index))}
      onkeydown={(event) => onkey(event, at, index)}
      {@attach drag(at, index, 'at')}
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
    stroke-width: 1.75px;
    cursor: move;
  }
  .node:hover,
  .handle:hover,
  .node:focus-visible {
    fill: var(--kelp);
    outline: none;
  }
</style>

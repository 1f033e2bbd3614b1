<script lang="ts">
  import { chain, scaling, translation } from '$lib/core/geom/affine';
  import { nodesOf } from '$lib/core/geom/nodes';
  import { toPx } from '$lib/core/num/length';
  import { pathOf } from '$lib/core/scene/drawing';
  import NodePoints from '../../components/NodePoints.svelte';
  import { nodeDrag, setRows } from './board-drags';
  import type { BoardContext } from './board-snap';

  /** The points of the chosen path on the drawing board. */
  type Props = { context: BoardContext };
  let { context }: Props = $props();

  const { board, view } = $derived(context);
  const element = $derived(board.single);
  const aids = $derived(board.editor.composed.aids);
  const step = $derived(aids.showGrid ? aids.grid : toPx(1, board.editor.composed.measure));
</script>

{#if element}
  <NodePoints
    rows={nodesOf(pathOf(element))}
    matrix={chain(translation(view.pan.x, view.pan.y), scaling(view.zoom))}
    step={step * view.zoom}
    drag={(row, index, what) => nodeDrag(context, row, index, what)}
    onset={(rows) => (rows.length === 0 ? board.remove() : setRows(board, rows))}
  />
{/if}

<script lang="ts">
  import { apply, chain, invert, scaling, translation } from '$lib/core/geom/affine';
  import { moveHandle, moveNode, nodesOf, pathOfNodes, putNode, type NodeRow } from '$lib/core/geom/nodes';
  import { toPx } from '$lib/core/num/length';
  import { layoutFormPath } from '$lib/core/recipe/form';
  import { frameMatrix, type Shape } from '$lib/core/recipe/layout';
  import { withOutline } from '$lib/core/recipe/transform';
  import NodePoints from '../components/NodePoints.svelte';
  import { dragging } from './dragging';
  import type { LayoutEditor } from './editor.svelte';
  import type { View } from './view.svelte';

  /** The points of a shape's outline on the stage. */
  type Props = { shape: Shape; editor: LayoutEditor; view: View };
  let { shape, editor, view }: Props = $props();

  /** The outline as it was drawn, in frame px; the shape's own turn, skew and reflection come with the matrix. */
  const rowsOf = (one: Shape): NodeRow[] => nodesOf(layoutFormPath(one.form, one.width, one.height));
  const pageOf = (one: Shape) => chain(translation(one.x, one.y), frameMatrix(one));
  const toStage = $derived(chain(translation(view.pan.x, view.pan.y), scaling(view.zoom), pageOf(shape)));

  function set(from: Shape, next: readonly NodeRow[], live: boolean): void {
    const reshaped = next.length > 0 ? withOutline(from, pathOfNodes(next)) : null;
    if (reshaped) editor.change(() => reshaped, { live: true, ids: new Set([from.id]) });
    if (!live) editor.history.commit();
  }

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
        set(start, putNode(all, row, index, node), true);
      },
      end: () => editor.history.commit(),
      cancel: () => editor.history.cancel(),
    });
  }
</script>

<NodePoints
  rows={rowsOf(shape)}
  matrix={toStage}
  step={toPx(1, editor.doc.measure) * view.zoom}
  drag={nodeDrag}
  onset={(rows) => set(shape, rows, false)}
/>

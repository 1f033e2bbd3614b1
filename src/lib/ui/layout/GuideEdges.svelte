<script lang="ts">
  import type { Guide } from '$lib/core/recipe/recipe';
  import { LIMITS } from '$lib/core/recipe/limits';
  import { dragging } from './dragging';
  import type { LayoutEditor } from './editor.svelte';
  import type { View } from './view.svelte';

  /** The upper and left sides of the chart border: a drag out of them lays a guide over the page. */
  type Props = { editor: LayoutEditor; view: View };
  let { editor, view }: Props = $props();

  const WIDE = 15;
  const corner = $derived(view.toScreen({ x: 0, y: 0 }));
  const across = $derived(editor.doc.width * view.zoom);
  const down = $derived(editor.doc.height * view.zoom);

  function pulling(axis: Guide['axis']) {
    let held: readonly Guide[] = [];
    return dragging({
      view,
      start: () => {
        held = editor.history.doc.guides;
        return held.length < LIMITS.guides ? undefined : 'done';
      },
      move: (at) => editor.changePage({ guides: [...held, { axis, at: at[axis] }] }, true),
      end: () => editor.history.commit(),
      cancel: () => editor.history.cancel(),
    });
  }
</script>

<rect
  class="edge y"
  data-guide-edge="y"
  x={corner.x}
  y={corner.y - WIDE}
  width={across}
  height={WIDE}
  {@attach pulling('y')}
>
  <title>Drag a guide out of the border</title>
</rect>
<rect
  class="edge x"
  data-guide-edge="x"
  x={corner.x - WIDE}
  y={corner.y}
  width={WIDE}
  height={down}
  {@attach pulling('x')}
>
  <title>Drag a guide out of the border</title>
</rect>

<style>
  .edge {
    fill: transparent;
  }
  .y {
    cursor: row-resize;
  }
  .x {
    cursor: col-resize;
  }
</style>

import type { LayoutEditor } from './editor.svelte';

/** Handlers of a number field: what is dragged shows at once, and the whole gesture is one step. */
export function gestureOf(editor: LayoutEditor, show: (value: number) => void) {
  return {
    onlive: show,
    onset: (value: number) => {
      show(value);
      editor.history.commit();
    },
    oncancel: () => editor.history.cancel(),
  };
}

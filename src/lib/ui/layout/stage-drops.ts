import type { LayoutEditor } from './editor.svelte';
import { addFiles } from './shapes';
import { shapeAt } from './stage-drags';
import type { View } from './view.svelte';

type Drops = {
  editor: LayoutEditor;
  view: View;
  /** Told over which shape a pattern is held. */
  over: (shape: string | null) => void;
};

const PATTERN = 'application/x-isle-pattern';

/** An attachment for a stage: files dropped on it become pictures and shapes, a hanger fills the shape it is dropped on. */
export function stageDrops({ editor, view, over }: Drops): (node: HTMLElement) => () => void {
  return (node) => {
    const dragover = (event: DragEvent): void => {
      const types = event.dataTransfer?.types ?? [];
      if (types.includes('Files')) event.preventDefault();
      if (!types.includes(PATTERN)) return;
      event.preventDefault();
      over(shapeAt(event.clientX, event.clientY));
    };
    const dragleave = (): void => over(null);
    const drop = (event: DragEvent): void => {
      const files = [...(event.dataTransfer?.files ?? [])];
      if (files.length > 0) {
        event.preventDefault();
        const box = node.getBoundingClientRect();
        void addFiles(
          editor,
          files,
          view.toPage({ x: event.clientX - box.left, y: event.clientY - box.top }),
        );
        return;
      }
      const pattern = event.dataTransfer?.getData(PATTERN);
      const target = shapeAt(event.clientX, event.clientY);
      over(null);
      if (!pattern || !target) return;
      event.preventDefault();
      editor.select([target]);
      void editor.fillWith(pattern, new Set([target]));
    };
    node.addEventListener('dragover', dragover);
    node.addEventListener('dragleave', dragleave);
    node.addEventListener('drop', drop);
    return () => {
      node.removeEventListener('dragover', dragover);
      node.removeEventListener('dragleave', dragleave);
      node.removeEventListener('drop', drop);
    };
  };
}

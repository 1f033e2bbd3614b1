import { undoByKey } from '../state/undo-keys';
import type { PictureEditor } from './editor.svelte';

export const PICTURE_KEYS = [
  ['Arrows on the picture', 'Move the region by a pixel, with Shift by 10'],
  ['+ and −', 'Make the region larger, smaller'],
  ['[ and ]', 'Turn the region by 1°, with Shift by 10°'],
  ['Shift while turning', 'Steps of 15°'],
  ['Escape', 'Give up a drag'],
  ['H', 'Show the joins in the middle, and back'],
  ['E', 'Show the edges of the unit, and hide them'],
  ['Ctrl/Cmd+Z', 'Undo; with Shift redo'],
  ['?', 'Show these keys'],
] as const;

type Actions = { help: () => void; half: () => void; edges: () => void };

/** What a key does in the picture view; true where it did something. */
export function pictureKey(event: KeyboardEvent, editor: PictureEditor, actions: Actions): boolean {
  if (undoByKey(event, editor.history)) return true;
  if (event.ctrlKey || event.metaKey || event.altKey) return false;
  const action = { h: actions.half, e: actions.edges, '?': actions.help }[event.key.toLowerCase()];
  action?.();
  return action !== undefined;
}

import { toPx } from '$lib/core/num/length';
import { ARROWS } from '../state/arrows';
import { inRun } from '../state/run';
import { undoByKey } from '../state/undo-keys';
import type { BenchEditor } from './editor.svelte';

export const BENCH_KEYS = [
  ['Arrows', 'Move the selected pieces by 1 unit, with Shift by 10'],
  ['Delete', 'Remove the selected pieces'],
  ['Ctrl/Cmd+D', 'Double the selected pieces'],
  ['[ and ]', 'Send back, bring forward'],
  ['Ctrl/Cmd+A', 'Select all pieces'],
  ['Escape', 'Give up a drag, or the selection'],
  ['Ctrl/Cmd+Z', 'Undo; with Shift redo'],
  ['0 and 1', 'Fit the unit, life size'],
  ['V', 'Look back at the last published revision, and return'],
  ['Alt while dragging', 'No snapping'],
  ['Ctrl/Cmd+wheel', 'Zoom at the pointer'],
  ['Shift while dragging', 'Straight moves, free sides, steps of 15°'],
  ['?', 'Show these keys'],
] as const;

export type KeyActions = { fit: () => void; lifeSize: () => void; help: () => void; flick: () => void };

/** What a key does on the bench; true where it did something. */
export function benchKey(event: KeyboardEvent, editor: BenchEditor, actions: KeyActions): boolean {
  if (undoByKey(event, editor.history)) return true;
  const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
  const table = event.ctrlKey || event.metaKey ? commandKeys(editor) : plainKeys(editor, actions);
  const arrow = ARROWS[event.key];
  if (arrow && !event.ctrlKey && !event.metaKey && editor.selected.size > 0) {
    const step = toPx(event.shiftKey ? 10 : 1, editor.recipe.measure);
    const moved = { x: arrow[0] * step, y: arrow[1] * step };
    inRun('nudge', () =>
      editor.change((placing) => ({ ...placing, x: placing.x + moved.x, y: placing.y + moved.y })),
    );
    return true;
  }
  const action = table[key];
  action?.();
  return action !== undefined;
}

function commandKeys(editor: BenchEditor): Record<string, () => void> {
  return {
    d: () => editor.double(),
    a: () => editor.select(editor.composed.placings.map((placing) => placing.id)),
  };
}

function plainKeys(editor: BenchEditor, actions: KeyActions): Record<string, () => void> {
  return {
    Delete: () => editor.remove(),
    Backspace: () => editor.remove(),
    '[': () => editor.restack('back'),
    ']': () => editor.restack('front'),
    '0': actions.fit,
    '1': actions.lifeSize,
    '?': actions.help,
    v: actions.flick,
    Escape: () => editor.select([]),
  };
}

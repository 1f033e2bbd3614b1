import { freeShapes, group, ungroup } from './arrange';
import type { LayoutEditor } from './editor.svelte';
import { toPx } from '$lib/core/num/length';
import { TOOLS, toolOfKey } from './tools';
import { inRun } from '../state/run';
import { undoByKey } from '../state/undo-keys';

export const LAYOUT_KEYS = [
  ['S, P, B', 'Handles move shape, pattern or both'],
  [
    TOOLS.slice(1)
      .map(({ key }) => key)
      .join(', '),
    'Draw: rectangle, ellipse, polygon, star, line, path, by hand, brush, text; twice keeps the tool',
  ],
  ['Arrows', 'Move by 1 unit, with Shift by 10'],
  ['Delete', 'Remove the selected shapes'],
  ['Ctrl/Cmd+D', 'Double the selected shapes'],
  ['Ctrl/Cmd+G', 'Group the selected shapes; with Shift let the group go'],
  ['Enter, double press', 'Edit the points of an outline, or the words of a text'],
  ['Alt while pressing', 'Choose one shape of a group alone'],
  ['[ and ]', 'Send back, bring forward'],
  ['Ctrl/Cmd+A', 'Select all shapes'],
  ['F6', 'Go on to the stage, the tools, the fill bar, the ledger or the hangers; with Shift back'],
  ['Escape', 'Give up a drag, or the selection'],
  ['Ctrl/Cmd+Z', 'Undo; with Shift redo'],
  ['V held, W held', 'See the layout before the last step; without its patterns'],
  ['0 and 1', 'Fit the page, 100 %'],
  ['2, 3, 4 and 5', 'Fold or open the hangers, the fill bar, the ledger; only the stage'],
  ['Ctrl/Cmd+wheel', 'Zoom at the pointer'],
  ['Space, middle button', 'Pan while dragging'],
  ['Shift while dragging', 'Straight moves, equal sides, steps of 15°'],
  ['Ctrl/Cmd on a side', 'Skew what the handles move'],
  ['?', 'Show these keys'],
] as const;

export type KeyActions = {
  fit: () => void;
  lifeSize: () => void;
  help: () => void;
  open: () => void;
  peek: (what: 'before' | 'plain') => void;
  fold: (part: 'hangers' | 'fills' | 'ledger' | 'all') => void;
};

const ARROWS: Record<string, { x: number; y: number }> = {
  ArrowLeft: { x: -1, y: 0 },
  ArrowRight: { x: 1, y: 0 },
  ArrowUp: { x: 0, y: -1 },
  ArrowDown: { x: 0, y: 1 },
};

/** What a key does on the stage; true where it did something. Text fields never reach here. */
export function layoutKey(event: KeyboardEvent, editor: LayoutEditor, actions: KeyActions): boolean {
  const command = event.ctrlKey || event.metaKey;
  const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
  if (undoByKey(event, editor.history)) return true;
  if (command) return commandKey(key, event.shiftKey, editor);
  const arrow = ARROWS[event.key];
  if (arrow && editor.selected.size > 0) {
    const step = toPx(event.shiftKey ? 10 : 1, editor.doc.measure);
    inRun('nudge', () => editor.moveSelected({ x: arrow.x * step, y: arrow.y * step }));
    return true;
  }
  const plain: Record<string, () => void> = {
    s: () => (editor.scope = 'shape'),
    p: () => (editor.scope = 'pattern'),
    b: () => (editor.scope = 'both'),
    Delete: () => editor.remove(),
    Backspace: () => editor.remove(),
    '[': () => editor.restack('back'),
    ']': () => editor.restack('front'),
    '0': actions.fit,
    '1': actions.lifeSize,
    '2': () => actions.fold('hangers'),
    '3': () => actions.fold('fills'),
    '4': () => actions.fold('ledger'),
    '5': () => actions.fold('all'),
    '?': actions.help,
    Enter: actions.open,
    v: () => actions.peek('before'),
    w: () => actions.peek('plain'),
    Escape: () => {
      if (editor.painting !== null) {
        editor.painting = null;
        return;
      }
      if (editor.editingPoints) {
        editor.editingPoints = false;
        return;
      }
      if (editor.tool !== 'select') editor.take('select');
      else editor.select([]);
    },
  };
  const tool = toolOfKey(key);
  if (tool !== null) {
    editor.take(tool);
    return true;
  }
  const action = plain[key];
  action?.();
  return action !== undefined;
}

function commandKey(key: string, shift: boolean, editor: LayoutEditor): boolean {
  if (key === 'd') editor.double();
  else if (key === 'a') editor.select(freeShapes(editor.doc).map((shape) => shape.id));
  else if (key === 'g') (shift ? ungroup : group)(editor);
  else return false;
  return true;
}

/** The parts of the view in the order that F6 goes through them, and what has the keyboard first in each. */
const PARTS: readonly { part: string; first: string[] }[] = [
  { part: '.stage', first: ['.stage'] },
  { part: '[role="toolbar"]', first: ['[role="toolbar"] button'] },
  { part: '.bar', first: ['.bar input', '.bar button'] },
  { part: '.ledger', first: ['.ledger tr[aria-selected="true"]', '.ledger tr[tabindex]', '.ledger input'] },
  { part: '.hangers-box', first: ['.hangers-box input'] },
  { part: '.proof', first: ['.proof .go', '.proof select'] },
];

/** Takes the keyboard on to the next part of the view that is there, or back. */
export function nextPart(step: 1 | -1): void {
  const held = PARTS.findIndex(({ part }) => document.activeElement?.closest(part));
  const from = held < 0 && step < 0 ? 0 : held;
  for (let count = 1; count <= PARTS.length; count += 1) {
    const { first } = PARTS[(from + step * count + PARTS.length * PARTS.length) % PARTS.length]!;
    const target = first
      .map((selector) => document.querySelector<HTMLElement>(selector))
      .find((one) => one?.checkVisibility());
    if (target) return target.focus();
  }
}

import { translation } from '$lib/core/geom/affine';
import { toPx } from '$lib/core/num/length';
import { ARROWS } from '../../state/arrows';
import { inRun } from '../../state/run';
import { undoByKey } from '../../state/undo-keys';
import { finishPath } from './board-drawing';
import { BOARD_TOOLS } from './board-tools';
import type { Board } from './board.svelte';
import type { Pen } from '../../state/pen.svelte';

export const BOARD_KEYS = [
  ['Arrows', 'Move what is chosen by 1 unit (with a shown grid by its pitch), with Shift by 10'],
  [
    BOARD_TOOLS.slice(1)
      .map(({ key }) => key)
      .join(', '),
    'Points, rectangle, ellipse, polygon, star, line, path, freehand, text; twice keeps a tool that draws',
  ],
  ['Enter', 'Finish a path; with nothing under way, go back to the unit'],
  ['Delete', 'Remove what is chosen'],
  ['Ctrl/Cmd+D', 'Double what is chosen'],
  ['[ and ]', 'Send back, bring forward'],
  ['Ctrl/Cmd+A', 'Choose everything'],
  ['Escape', 'Give up a drag, a path, the tool, or the choice'],
  ['Ctrl/Cmd+Z', 'Undo; with Shift redo'],
  ['0', 'Fit the drawing'],
  ['Shift while drawing', 'Equal sides, steps of 15°'],
  ['Alt while drawing', 'No snapping'],
  ['?', 'Show these keys'],
] as const;

export type BoardActions = { fit: () => void; help: () => void; leave: () => void };

/** What a key does on the drawing board; true where it did something. */
export function boardKey(event: KeyboardEvent, board: Board, pen: Pen, actions: BoardActions): boolean {
  if (undoByKey(event, board.editor.history)) return true;
  const command = event.ctrlKey || event.metaKey;
  const arrow = ARROWS[event.key];
  if (arrow && !command && board.selected.length > 0) {
    const { aids, measure } = board.editor.composed;
    const step = (aids.showGrid ? aids.grid : toPx(1, measure)) * (event.shiftKey ? 10 : 1);
    inRun('nudge', () => board.transform(translation(arrow[0] * step, arrow[1] * step)));
    return true;
  }
  const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
  const commands: Record<string, () => void> = {
    d: () => board.double(),
    a: () => board.selectAll(),
  };
  const plain: Record<string, () => void> = {
    Delete: () => board.remove(),
    Backspace: () => board.remove(),
    '[': () => board.restack('back'),
    ']': () => board.restack('front'),
    '0': actions.fit,
    '?': actions.help,
    Enter: () => {
      if (pen.nodes.length === 0) return actions.leave();
      finishPath(board, pen);
    },
    Escape: () => {
      if (pen.nodes.length > 0) pen.cancel();
      else if (board.tool !== 'choose') board.hand.letGo();
      else board.select([]);
    },
  };
  const tool = command ? undefined : BOARD_TOOLS.find((one) => one.key.toLowerCase() === key);
  if (tool) {
    board.hand.take(tool.tool);
    return true;
  }
  const action = (command ? commands : plain)[key];
  action?.();
  return action !== undefined;
}

/** What can be undone by keys: a history, or what stands for one. */
type Undoable = { undo: () => void; redo: () => void };

/** Ctrl/Cmd+Z undoes, with Shift or as Ctrl/Cmd+Y it redoes; true where the key was one of these. */
export function undoByKey(event: KeyboardEvent, history: Undoable): boolean {
  if (!isUndoKey(event)) return false;
  if (event.key.toLowerCase() === 'y' || event.shiftKey) history.redo();
  else history.undo();
  return true;
}

const isUndoKey = (event: KeyboardEvent): boolean =>
  (event.ctrlKey || event.metaKey) && !event.altKey && ['z', 'y'].includes(event.key.toLowerCase());

/** Fields in which nothing is typed that is not taken yet carry this: undo is then the document's, not the field's. */
export const settledField = (typed: string | null): { 'data-settled': '' | undefined } => ({
  'data-settled': typed === null ? '' : undefined,
});

/** True for a key press that belongs to a field, a button or an open dialog, not to the view. */
export function keyIsTaken(event: KeyboardEvent): boolean {
  const target = event.target as Element | null;
  if (event.defaultPrevented || target?.closest('dialog')) return true;
  if (isUndoKey(event)) {
    const field = target?.closest('input:not([type="range"], [type="checkbox"]), textarea');
    return field !== null && field !== undefined && !field.hasAttribute('data-settled');
  }
  if (target?.closest('[role="dialog"]')) return true;
  const inField = target?.closest('input, textarea, select') !== null && target !== null;
  if (inField) return true;
  const onButton = (target?.closest('button, a, [role="radio"]') ?? null) !== null;
  return onButton && ['Enter', ' ', 'ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown'].includes(event.key);
}

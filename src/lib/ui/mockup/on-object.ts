import { formatPath } from '$lib/core/geom/path';
import { heldShapes, shapeOutline } from '$lib/core/recipe/layout';
import type { Met } from './scene/object-scene';
import type { MockupSession } from './session.svelte';

let drawn: CanvasRenderingContext2D | null = null;

/** The topmost shape of an object's layout at a place of its sheet, by its id. */
export function shapeOn(session: MockupSession, { id, sheet }: Met): string | null {
  const one = session.body.objects.find((held) => held.id === id);
  const editor = session.editorOf(one ?? null);
  const at = one && sheet && session.onPage(one, sheet);
  if (!editor || !at) return null;
  drawn ??= document.createElement('canvas').getContext('2d');
  const hidden = heldShapes(editor.doc, 'hidden');
  const over = editor.doc.shapes.findLast((shape) => {
    if (hidden(shape)) return false;
    const outline = new Path2D(formatPath(shapeOutline(shape)));
    return drawn?.isPointInPath(outline, at.x - shape.x, at.y - shape.y) ?? false;
  });
  return over?.id ?? null;
}

/** Carries the selected shape with the pointer over the object, where the drag begins on it; `null` where it does not. */
export function carryShape(
  session: MockupSession,
  met: Met,
): ((now: Met | null, done: boolean) => void) | null {
  const one = session.chosen;
  const editor = session.editorOf(one);
  const shape = shapeOn(session, met);
  // The part that is the whole surface stays: a drag on it turns the object.
  if (!one || !editor || !shape || !editor.selected.has(shape) || !isUpon(session, shape)) return null;
  const from = met.sheet && session.onPage(one, met.sheet);
  if (!from) return null;
  return (now, done) => {
    const to = now?.id === one.id && now.sheet ? session.onPage(one, now.sheet) : null;
    if (to) editor.moveSelected({ x: to.x - from.x, y: to.y - from.y }, true);
    if (done) editor.history.commit();
  };
}

/** Whether a shape lies upon a part of the sheet: a badge on the wall, not the wall itself. */
function isUpon(session: MockupSession, id: string): boolean {
  const editor = session.editor;
  const sheet = session.chosen && session.sheetOf(session.chosen);
  const shape = editor?.doc.shapes.find((held) => held.id === id);
  if (!shape || !sheet) return false;
  return !sheet.panels.some(({ name }) => name === shape.name);
}

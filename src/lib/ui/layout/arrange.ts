import { nanoid } from 'nanoid';
import { combineAreas, type PathOperation } from '$lib/core/geom/boolean';
import { unionBoxes, type Box } from '$lib/core/geom/box';
import { formatPath, transformPath } from '$lib/core/geom/path';
import { translation } from '$lib/core/geom/affine';
import type { Point } from '$lib/core/geom/point';
import { alignBoxes, type Alignment } from '$lib/core/recipe/align';
import { formOfPath } from '$lib/core/recipe/form';
import { heldShapes, shapeBox, shapeOutline, type Shape, type ShapeGroup } from '$lib/core/recipe/layout';
import { moveBy, sizeTo, withOutline } from '$lib/core/recipe/transform';
import { LIMITS } from '$lib/core/recipe/limits';
import { toasts } from '../state/toasts.svelte';
import { tidyGroups, type LayoutDoc } from './doc';
import type { LayoutEditor } from './editor.svelte';

/** What is done to several shapes together: groups, lining up, sizes, unions, rows. */

/** The box of all that is selected, on the page. */
export const selectionBox = (editor: LayoutEditor): Box | null => unionBoxes(editor.chosen.map(shapeBox));

/** Lines the selected shapes up with each other, or with the page; their patterns come along. */
export function align(editor: LayoutEditor, how: Alignment, to: 'selection' | 'page'): void {
  const { width, height } = editor.doc;
  const frame = to === 'page' || editor.chosen.length === 1 ? { x: 0, y: 0, width, height } : null;
  const items = editor.chosen.map((shape) => ({ id: shape.id, box: shapeBox(shape) }));
  const moves = new Map(alignBoxes(how, items, frame));
  editor.change((shape) => moveBy(shape, 'shape', moves.get(shape.id) ?? { x: 0, y: 0 }));
}

/** Gives all selected shapes the width, height or both of the frontmost one. */
export function sameSize(editor: LayoutEditor, which: 'width' | 'height' | 'both'): void {
  const last = editor.chosen[editor.chosen.length - 1];
  if (!last) return;
  editor.change((shape) =>
    sizeTo(shape, editor.scope === 'both' ? 'both' : 'shape', {
      x: shape.x,
      y: shape.y,
      width: which === 'height' ? shape.width : last.width,
      height: which === 'width' ? shape.height : last.height,
    }),
  );
}

/** Puts the selected shapes into a group, together in the stack where the frontmost of them lies. */
export function group(editor: LayoutEditor): void {
  const { doc } = editor.history;
  const members = doc.shapes.filter((shape) => editor.selected.has(shape.id));
  if (members.length === 0) return;
  const parents = new Set(members.map((shape) => shape.group));
  const parent = parents.size === 1 ? ([...parents][0] ?? null) : null;
  const fresh: ShapeGroup = {
    id: nanoid(12),
    name: editor.freshName('Group'),
    parent,
    locked: false,
    hidden: false,
  };
  const last = doc.shapes.lastIndexOf(members[members.length - 1] as Shape);
  const before = doc.shapes.slice(0, last + 1).filter((shape) => !editor.selected.has(shape.id));
  const moved = members.map((shape) => ({ ...shape, group: fresh.id }));
  const shapes = [...before, ...moved, ...doc.shapes.slice(last + 1)];
  editor.history.commit(tidyGroups({ ...doc, shapes, groups: [...doc.groups, fresh] }));
}

/** Lets the groups of the selected shapes go; their shapes come into the group around them. */
export function ungroup(editor: LayoutEditor): void {
  const { doc } = editor.history;
  const gone = new Set(editor.chosen.flatMap((shape) => shape.group ?? []));
  if (gone.size === 0) return;
  const outer = new Map(doc.groups.map(({ id, parent }) => [id, parent]));
  const shapes = doc.shapes.map((shape) =>
    shape.group !== null && gone.has(shape.group)
      ? { ...shape, group: outer.get(shape.group) ?? null }
      : shape,
  );
  const groups = doc.groups
    .filter(({ id }) => !gone.has(id))
    .map((one) =>
      one.parent !== null && gone.has(one.parent) ? { ...one, parent: outer.get(one.parent) ?? null } : one,
    );
  editor.history.commit({ ...doc, shapes, groups });
}

/** Locks or hides shapes; with none left free, all of them are let go again. */
export function hold(
  editor: LayoutEditor,
  by: 'locked' | 'hidden',
  ids: ReadonlySet<string> = editor.selected,
): void {
  const shapes = editor.doc.shapes.filter((shape) => ids.has(shape.id));
  const value = !shapes.every((shape) => shape[by]);
  editor.change((shape) => ({ ...shape, [by]: value }), { ids });
}

/** Locks or hides a whole group, or lets it go. */
export function holdGroup(editor: LayoutEditor, id: string, by: 'locked' | 'hidden'): void {
  const { doc } = editor.history;
  const groups = doc.groups.map((one) => (one.id === id ? { ...one, [by]: !one[by] } : one));
  editor.history.commit({ ...doc, groups });
}

/** Puts the outlines of the selected shapes together into one, which keeps the backmost one's fills where they lie. */
export function combine(editor: LayoutEditor, operation: PathOperation): void {
  const { doc } = editor.history;
  const chosen = doc.shapes.filter((shape) => editor.selected.has(shape.id));
  const [first, ...others] = chosen;
  if (!first || others.length === 0) return;
  if (editor.withoutLocked(editor.selected).size < chosen.length) return;
  const areas = chosen.map((shape) => ({
    path: transformPath(translation(shape.x, shape.y), shapeOutline(shape)),
    rule: 'nonzero' as const,
  }));
  const result = combineAreas(operation, areas);
  const made = result.ok ? formOfPath(result.path, (path) => formatPath(path)) : null;
  if (!result.ok || !made) {
    toasts.problem(result.ok ? 'Nothing is left of these shapes; undo or choose others.' : result.message);
    return;
  }
  const upright: Shape = { ...first, rotation: 0, skew: 0, reflectX: false, reflectY: false };
  const back = translation(-upright.x, -upright.y);
  const united = withOutline(upright, transformPath(back, result.path));
  if (!united) return;
  const gone = new Set(others.map(({ id }) => id));
  const shapes = doc.shapes.flatMap((shape) =>
    shape.id === first.id ? [united] : gone.has(shape.id) ? [] : [shape],
  );
  editor.history.commit(tidyGroups({ ...doc, shapes }));
  editor.select([first.id]);
}

/** Copies of the selected shapes in rows and columns, `pitch` px apart on the page. */
export function grid(editor: LayoutEditor, columns: number, rows: number, pitch: Point): void {
  const { chosen } = editor;
  const count = chosen.length * (columns * rows - 1);
  if (editor.doc.shapes.length + count > LIMITS.shapes) {
    toasts.problem(
      `That would make ${editor.doc.shapes.length + count} shapes; a layout holds at most ${LIMITS.shapes}.`,
    );
    return;
  }
  const copies = Array.from({ length: columns * rows - 1 }, (_, index) => index + 1).flatMap((index) => {
    const by = { x: (index % columns) * pitch.x, y: Math.floor(index / columns) * pitch.y };
    return chosen.map((shape) => editor.copyOf(moveBy(shape, 'both', by)));
  });
  editor.addShapes(copies);
}

/** The ids of all shapes that lie in a group, in it or in groups within it. */
export function membersOf(doc: LayoutDoc, id: string): Set<string> {
  const inside = new Set([id]);
  for (let grown = true; grown;) {
    const before = inside.size;
    for (const one of doc.groups) if (one.parent !== null && inside.has(one.parent)) inside.add(one.id);
    grown = inside.size > before;
  }
  return new Set(
    doc.shapes.filter((shape) => shape.group !== null && inside.has(shape.group)).map(({ id: one }) => one),
  );
}

/** The shapes that can be chosen on the stage: neither locked nor hidden, by themselves or with their group. */
export function freeShapes(doc: LayoutDoc): Shape[] {
  const [locked, hidden] = [heldShapes(doc, 'locked'), heldShapes(doc, 'hidden')];
  return doc.shapes.filter((shape) => !locked(shape) && !hidden(shape));
}

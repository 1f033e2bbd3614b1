import type { Hex } from '../colour/parse';
import type { LengthUnit } from '../num/length';
import { sameValue } from '../num/same';
import type { Layout, Shape, ShapeGroup } from './layout';
import type { Guide } from './recipe';

/** What is edited of a layout: the page, its name, and its shapes in stack order. */
export type LayoutDoc = Layout & { name: string };

/** Some of a shape's fields with their new values. */
export type ShapeFields = Partial<Omit<Shape, 'id'>>;

export type PageFields = {
  name?: string;
  width?: number;
  height?: number;
  measure?: LengthUnit;
  ppi?: number;
  background?: Hex | null;
  backgroundLink?: string | null;
  bleed?: number;
  margin?: number;
  guides?: readonly Guide[];
};

/** One change of a layout. Several are made in their order; a new shape lies on top until an order says otherwise. */
export type LayoutChange =
  | { do: 'put-shape'; shape: Shape }
  | { do: 'patch-shape'; id: string; fields: ShapeFields }
  | { do: 'remove-shape'; id: string }
  | { do: 'order'; ids: string[] }
  | { do: 'put-group'; group: ShapeGroup }
  | { do: 'remove-group'; id: string }
  | ({ do: 'page' } & PageFields);

/** The fields of a shape that are others than they were; `null` where none is. */
export function changedFields(from: Shape, to: Shape): ShapeFields | null {
  if (from === to) return null;
  const fields = Object.entries(to).filter(([key, value]) => !sameValue(from[key as keyof Shape], value));
  return fields.length === 0 ? null : Object.fromEntries(fields);
}

/** The changes that turn `from` into `to`, the smallest: of a shape that both have only the fields that differ. */
export function diffLayout(from: LayoutDoc, to: LayoutDoc): LayoutChange[] {
  const changes: LayoutChange[] = [];
  const { shapes: _from, groups: _groups, ...oldPage } = from;
  const { shapes: _to, groups: _others, ...newPage } = to;
  const page = Object.fromEntries(
    Object.entries(newPage).filter(([key, value]) => !sameValue(oldPage[key as keyof typeof oldPage], value)),
  );
  if (Object.keys(page).length > 0) changes.push({ do: 'page', ...page });
  const groupBefore = new Map(from.groups.map((group) => [group.id, group]));
  for (const group of to.groups)
    if (!sameValue(groupBefore.get(group.id), group)) changes.push({ do: 'put-group', group });
  const before = new Map(from.shapes.map((shape) => [shape.id, shape]));
  const after = new Set(to.shapes.map((shape) => shape.id));
  for (const id of before.keys()) if (!after.has(id)) changes.push({ do: 'remove-shape', id });
  for (const shape of to.shapes) {
    const was = before.get(shape.id);
    if (was === shape) continue;
    if (!was) changes.push({ do: 'put-shape', shape });
    else {
      const fields = changedFields(was, shape);
      if (fields) changes.push({ do: 'patch-shape', id: shape.id, fields });
    }
  }
  const kept = from.shapes.filter((shape) => after.has(shape.id)).map((shape) => shape.id);
  const added = to.shapes.filter((shape) => !before.has(shape.id)).map((shape) => shape.id);
  const stored = [...kept, ...added];
  const wanted = to.shapes.map((shape) => shape.id);
  if (wanted.some((id, index) => id !== stored[index])) changes.push({ do: 'order', ids: wanted });
  // Groups go last: until then shapes may still name them.
  const groupAfter = new Set(to.groups.map(({ id }) => id));
  for (const id of groupBefore.keys()) if (!groupAfter.has(id)) changes.push({ do: 'remove-group', id });
  return changes;
}

/** The document after changes; a patch of a shape that is not there does nothing. Inverse of {@link diffLayout}. */
export function applyChanges(doc: LayoutDoc, changes: readonly LayoutChange[]): LayoutDoc {
  const shapes = new Map(doc.shapes.map((shape) => [shape.id, shape]));
  const groups = new Map(doc.groups.map((group) => [group.id, group]));
  let page: PageFields = {};
  let order: string[] | null = null;
  for (const change of changes)
    if (change.do === 'put-shape') {
      if (order && !shapes.has(change.shape.id)) order.push(change.shape.id);
      shapes.set(change.shape.id, change.shape);
    } else if (change.do === 'patch-shape') {
      const held = shapes.get(change.id);
      if (held) shapes.set(change.id, { ...held, ...change.fields });
    } else if (change.do === 'remove-shape') shapes.delete(change.id);
    else if (change.do === 'put-group') groups.set(change.group.id, change.group);
    else if (change.do === 'remove-group') groups.delete(change.id);
    else if (change.do === 'order') order = [...change.ids];
    else {
      const { do: _do, ...rest } = change;
      page = { ...page, ...rest };
    }
  const stack = (order ?? [...shapes.keys()]).flatMap((id) => shapes.get(id) ?? []);
  return { ...doc, ...page, shapes: stack, groups: [...groups.values()] };
}

/** Changes that do the same as several lists one after the other, each shape, group and field named once. */
export function compactChanges(lists: readonly (readonly LayoutChange[])[]): LayoutChange[] {
  const page: PageFields = {};
  const groups = new Map<string, ShapeGroup | null>();
  const shapes = new Map<string, LayoutChange & { do: 'put-shape' | 'patch-shape' | 'remove-shape' }>();
  /** Shapes that were taken away and put again: they lie on top since then, and the removal has to be said. */
  const again = new Set<string>();
  let order = null as string[] | null;
  for (const change of lists.flat())
    switch (change.do) {
      case 'page': {
        const { do: _do, ...fields } = change;
        Object.assign(page, fields);
        break;
      }
      case 'put-group':
        groups.set(change.group.id, change.group);
        break;
      case 'remove-group':
        groups.set(change.id, null);
        break;
      case 'order':
        order = [...change.ids];
        break;
      case 'remove-shape':
        shapes.delete(change.id);
        shapes.set(change.id, change);
        if (order) order = order.filter((id) => id !== change.id);
        break;
      case 'put-shape': {
        const { id } = change.shape;
        if (shapes.get(id)?.do === 'remove-shape') {
          again.add(id);
          shapes.delete(id);
        }
        if (order && !order.includes(id)) order.push(id);
        shapes.set(id, change);
        break;
      }
      case 'patch-shape': {
        const held = shapes.get(change.id);
        if (held?.do === 'put-shape')
          shapes.set(change.id, { ...held, shape: { ...held.shape, ...change.fields } });
        else if (held?.do === 'patch-shape')
          shapes.set(change.id, { ...held, fields: { ...held.fields, ...change.fields } });
        else if (!held) shapes.set(change.id, change);
      }
    }
  const all = [...shapes.values()];
  const removed = all.filter((change) => change.do === 'remove-shape');
  return [
    ...(Object.keys(page).length > 0 ? [{ do: 'page' as const, ...page }] : []),
    ...[...groups.values()].flatMap((group) => (group ? [{ do: 'put-group' as const, group }] : [])),
    ...removed,
    ...[...again].flatMap((id) =>
      shapes.get(id)?.do === 'put-shape' ? [{ do: 'remove-shape' as const, id }] : [],
    ),
    ...all.filter((change) => change.do !== 'remove-shape'),
    ...(order ? [{ do: 'order' as const, ids: order }] : []),
    ...[...groups].flatMap(([id, group]) => (group ? [] : [{ do: 'remove-group' as const, id }])),
  ];
}

import type { LayoutChange, LayoutData } from '$lib/contract/data';
import type { Layout, Shape } from '$lib/core/recipe/layout';

/** What the layout view edits: the page, its name, and its shapes in stack order. */
export type LayoutDoc = Layout & { name: string };

/** The editable part of a layout as the server gives it. */
export function docOf(data: LayoutData): LayoutDoc {
  const {
    id: _id,
    projectId: _project,
    projectName: _named,
    version: _version,
    archivedAt: _at,
    object: _object,
    ...doc
  } = data;
  return { ...doc, backgroundLink: doc.backgroundLink ?? null };
}

/** The document with some shapes changed; the others stay the same objects. */
export function changeShapes(
  doc: LayoutDoc,
  ids: ReadonlySet<string>,
  change: (shape: Shape) => Shape,
): LayoutDoc {
  return { ...doc, shapes: doc.shapes.map((shape) => (ids.has(shape.id) ? change(shape) : shape)) };
}

/** The changes that turn `from` into `to`, smallest set: only shapes that are not the same object are put. */
export function diffLayout(from: LayoutDoc, to: LayoutDoc): LayoutChange[] {
  const changes: LayoutChange[] = [];
  const { shapes: _from, groups: _groups, ...oldPage } = from;
  const { shapes: _to, groups: _others, ...newPage } = to;
  const page = Object.fromEntries(
    Object.entries(newPage).filter(([key, value]) => oldPage[key as keyof typeof oldPage] !== value),
  );
  if (Object.keys(page).length > 0) changes.push({ do: 'page', ...page });
  const groupBefore = new Map(from.groups.map((group) => [group.id, group]));
  for (const group of to.groups)
    if (groupBefore.get(group.id) !== group) changes.push({ do: 'put-group', group });
  const before = new Map(from.shapes.map((shape) => [shape.id, shape]));
  const after = new Set(to.shapes.map((shape) => shape.id));
  for (const id of before.keys()) if (!after.has(id)) changes.push({ do: 'remove-shape', id });
  for (const shape of to.shapes) if (before.get(shape.id) !== shape) changes.push({ do: 'put-shape', shape });
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

/** The document after changes that {@link diffLayout} told. */
export function applyChanges(doc: LayoutDoc, changes: readonly LayoutChange[]): LayoutDoc {
  const shapes = new Map(doc.shapes.map((shape) => [shape.id, shape]));
  const groups = new Map(doc.groups.map((group) => [group.id, group]));
  let page: Partial<LayoutDoc> = {};
  let order: readonly string[] | null = null;
  for (const change of changes)
    if (change.do === 'put-shape') shapes.set(change.shape.id, change.shape);
    else if (change.do === 'remove-shape') shapes.delete(change.id);
    else if (change.do === 'put-group') groups.set(change.group.id, change.group);
    else if (change.do === 'remove-group') groups.delete(change.id);
    else if (change.do === 'order') order = change.ids;
    else {
      const { do: _do, ...rest } = change;
      page = { ...page, ...rest };
    }
  const stack = (order ?? [...shapes.keys()]).flatMap((id) => shapes.get(id) ?? []);
  return { ...doc, ...page, shapes: stack, groups: [...groups.values()] };
}

/** Puts a shape at another place in the stack. */
export function moveInStack(doc: LayoutDoc, id: string, to: number): LayoutDoc {
  const shape = doc.shapes.find((held) => held.id === id);
  if (!shape) return doc;
  const rest = doc.shapes.filter((held) => held.id !== id);
  return { ...doc, shapes: [...rest.slice(0, to), shape, ...rest.slice(to)] };
}

/** A document without groups that hold nothing. */
export function tidyGroups(doc: LayoutDoc): LayoutDoc {
  let { groups } = doc;
  for (;;) {
    const used = new Set([...doc.shapes.map((shape) => shape.group), ...groups.map(({ parent }) => parent)]);
    const kept = groups.filter(({ id }) => used.has(id));
    if (kept.length === groups.length) return groups === doc.groups ? doc : { ...doc, groups };
    groups = kept;
  }
}

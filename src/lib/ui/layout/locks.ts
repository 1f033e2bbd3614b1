import { heldShapes, type Shape } from '$lib/core/recipe/layout';
import type { LayoutDoc } from './doc';

/** What may become of a wanted state of a layout, and the names of the locked shapes that it would have changed. */
export type Kept = { doc: LayoutDoc; refused: string[] };

/**
 * A wanted state in which shapes that were locked, by themselves or with their group, are as they were: they change by
 * nothing but unlocking. Another size of the page, which takes its shapes along, is the page's own change.
 */
export function keepLocked(before: LayoutDoc, wanted: LayoutDoc): Kept {
  const unchanged = before.shapes === wanted.shapes && before.groups === wanted.groups;
  if (unchanged || before.width !== wanted.width || before.height !== wanted.height)
    return { doc: wanted, refused: [] };
  const isLocked = heldShapes(before, 'locked');
  const locked = before.shapes.filter(isLocked);
  if (locked.length === 0) return { doc: wanted, refused: [] };

  const now = new Map(wanted.shapes.map((shape) => [shape.id, shape]));
  const kept = new Map<string, Shape>();
  const refused: string[] = [];
  for (const shape of locked) {
    const next = now.get(shape.id);
    if (next === shape || (next && onlyLock(shape, next))) continue;
    kept.set(shape.id, shape);
    refused.push(shape.name);
  }
  const groups = before.groups.filter(
    (group) =>
      group.locked &&
      changedMore(
        group,
        wanted.groups.find(({ id }) => id === group.id),
      ),
  );
  refused.push(...groups.map(({ name }) => name));
  if (refused.length === 0) return { doc: wanted, refused };

  const gone = locked.filter(({ id }) => kept.has(id) && !now.has(id)).map(({ id }) => id);
  const shapes = wanted.shapes.map((shape) => kept.get(shape.id) ?? shape);
  for (const id of gone) {
    // Back to where it lay: behind the first of those that lay in front of it and are still there.
    const at = before.shapes.findIndex((shape) => shape.id === id);
    const front = before.shapes.slice(at + 1).find((shape) => shapes.some((one) => one.id === shape.id));
    const place = front ? shapes.findIndex((one) => one.id === front.id) : shapes.length;
    shapes.splice(place, 0, before.shapes[at] as Shape);
  }
  const doc = { ...wanted, shapes, groups: withGroups(before, wanted, [...kept.values()], groups) };
  return { doc: alike(before, doc) ? before : doc, refused };
}

/** True where two states hold the very same parts. */
const alike = (one: LayoutDoc, other: LayoutDoc): boolean =>
  (Object.keys(other) as (keyof LayoutDoc)[]).every((key) => {
    const [a, b]: unknown[] = [one[key], other[key]];
    return Array.isArray(a) && Array.isArray(b)
      ? a.length === b.length && a.every((part, index) => part === b[index])
      : a === b;
  });

/** True where nothing but the lock differs. */
function onlyLock(before: Shape, after: Shape): boolean {
  return (Object.keys({ ...before, ...after }) as (keyof Shape)[]).every(
    (key) => key === 'locked' || before[key] === after[key],
  );
}

type Group = LayoutDoc['groups'][number];

const changedMore = (group: Group, next: Group | undefined): boolean =>
  next === undefined ||
  next.name !== group.name ||
  next.hidden !== group.hidden ||
  next.parent !== group.parent;

/** The wanted groups, with those that locked shapes lie in and locked ones as they were. */
function withGroups(
  before: LayoutDoc,
  wanted: LayoutDoc,
  kept: readonly Shape[],
  locked: readonly Group[],
): Group[] {
  const back = new Map(locked.map((group) => [group.id, group]));
  const was = new Map(before.groups.map((group) => [group.id, group]));
  const held = new Set(wanted.groups.map(({ id }) => id));
  const pending = [...kept.map(({ group }) => group), ...locked.map(({ parent }) => parent)];
  for (let id = pending.pop(); id !== undefined; id = pending.pop()) {
    const group = id === null ? undefined : was.get(id);
    if (!group || held.has(group.id) || back.has(group.id)) continue;
    back.set(group.id, group);
    pending.push(group.parent);
  }
  const rest = wanted.groups.map((group) => back.get(group.id) ?? group);
  return [...rest, ...[...back.values()].filter(({ id }) => !held.has(id))];
}

/** Says what stayed as it was. */
export function sayLocked(names: readonly string[]): string {
  const [first] = names;
  return names.length === 1
    ? `“${first}” is locked and stays as it is; unlock it to change it.`
    : `${names.length} locked shapes stay as they are; unlock them to change them.`;
}

import { sameValue as same } from '../num/same';
import type { Fill } from './fill';
import type { Shape, ShapeStroke } from './layout';
import type { LayoutDoc } from './layout-changes';

/**
 * What two people did to the same field of the same shape (of the page where `shape` is `null`). Theirs stands; `mine` is
 * what it would be with one’s own.
 */
export type Clash = {
  shape: string | null;
  /** How the shape is called, or the layout. */
  name: string;
  /** The field’s place in the shape: `['x']`, `['fills', id of a fill, 'scaleX']`. */
  path: readonly string[];
  mine: unknown;
  theirs: unknown;
  /** `field`: both gave it a value. `gone`: they took the shape away while it was changed here; it stays. */
  kind: 'field' | 'gone';
};

/** What two people made of one layout, as one. */
export type Merged = { doc: LayoutDoc; clashes: Clash[] };

/**
 * Brings together what was changed here (`mine`) and what was saved elsewhere (`theirs`) since `base`, field by field. What only
 * one of them changed is taken from it; where both changed a field, theirs stands and it is told. A shape that one of them took
 * away is gone, unless the other changed it.
 */
export const mergeDocs = (base: LayoutDoc, mine: LayoutDoc, theirs: LayoutDoc): Merged =>
  merged(base, mine, theirs, true);

/** Does to a document what leads from one state of it to another: a field that has another value since then keeps that. */
export const carried = (from: LayoutDoc, to: LayoutDoc, doc: LayoutDoc): LayoutDoc =>
  merged(from, to, doc, false).doc;

/** What was saved elsewhere, with the very same parts as `base` where they are alike: comparing them again then costs nothing. */
export function sharing(base: LayoutDoc, theirs: LayoutDoc): LayoutDoc {
  const shared = <T extends { id: string }>(before: readonly T[], after: readonly T[]): T[] => {
    const known = new Map(before.map((part) => [part.id, part]));
    return after.map((part) => {
      const was = known.get(part.id);
      return was && same(was, part) ? was : part;
    });
  };
  return {
    ...theirs,
    shapes: shared(base.shapes, theirs.shapes),
    groups: shared(base.groups, theirs.groups),
  };
}

function merged(base: LayoutDoc, mine: LayoutDoc, theirs: LayoutDoc, keepsGone: boolean): Merged {
  const clashes: Clash[] = [];
  const shapes = mergeList<Shape>(base.shapes, mine.shapes, theirs.shapes, {
    merge: (was, my, their) => {
      const faults: Fault[] = [];
      const shape = mergeKeys(was, my, their, [], faults) as Shape;
      for (const fault of faults)
        clashes.push({ shape: shape.id, name: shape.name, kind: 'field', ...fault });
      return shape;
    },
    gone: (my) => {
      if (keepsGone)
        clashes.push({ shape: my.id, name: my.name, path: [], mine: my, theirs: null, kind: 'gone' });
      return keepsGone;
    },
  });
  const groups = mergeList(base.groups, mine.groups, theirs.groups, {
    merge: (_was, _my, their) => their,
    gone: () => true,
  });
  const page: Record<string, unknown> = {};
  for (const key of Object.keys(theirs) as (keyof LayoutDoc)[]) {
    if (key === 'shapes' || key === 'groups') continue;
    const faults: Fault[] = [];
    page[key] = mergeField(base[key], mine[key], theirs[key], [key], faults);
    for (const fault of faults) clashes.push({ shape: null, name: theirs.name, kind: 'field', ...fault });
  }
  return { doc: { ...theirs, ...page, shapes, groups }, clashes };
}

type Fault = Pick<Clash, 'path' | 'mine' | 'theirs'>;

/** The fields of a shape that hold parts with fields of their own. */
function mergeField(
  was: unknown,
  my: unknown,
  their: unknown,
  path: readonly string[],
  faults: Fault[],
): unknown {
  if (was === my || same(was, my)) return their;
  if (was === their || same(was, their)) return my;
  if (same(my, their)) return their;
  const key = path[path.length - 1];
  if (key === 'fills')
    return mergeList(was as Fill[], my as Fill[], their as Fill[], {
      merge: (one, mine, other) =>
        one.kind === mine.kind && one.kind === other.kind
          ? (mergeKeys(one, mine, other, [...path, one.id], faults) as Fill)
          : clash(mine, other, [...path, one.id], faults),
      gone: () => true,
    });
  if (key === 'stroke' && was && my && their)
    return mergeKeys(was as ShapeStroke, my as ShapeStroke, their as ShapeStroke, path, faults);
  return clash(my, their, path, faults);
}

function clash<T>(mine: T, theirs: T, path: readonly string[], faults: Fault[]): T {
  faults.push({ path, mine, theirs });
  return theirs;
}

function mergeKeys(was: object, my: object, their: object, path: readonly string[], faults: Fault[]): object {
  const [a, b, c] = [was, my, their] as Record<string, unknown>[];
  const keys = new Set([...Object.keys(b ?? {}), ...Object.keys(c ?? {})]);
  return Object.fromEntries(
    [...keys].map((key) => [key, mergeField(a?.[key], b?.[key], c?.[key], [...path, key], faults)]),
  );
}

type Part = { id: string };
type How<T> = {
  merge: (was: T, mine: T, theirs: T) => T;
  /** Whether a part stays that they took away and that was changed here. */
  gone: (mine: T) => boolean;
};

/** Brings two lists of parts together that both came of `base`: what is in them, and their order. */
function mergeList<T extends Part>(
  base: readonly T[],
  mine: readonly T[],
  theirs: readonly T[],
  how: How<T>,
): T[] {
  const byId = (list: readonly T[]): Map<string, T> => new Map(list.map((part) => [part.id, part]));
  const [before, here, there] = [byId(base), byId(mine), byId(theirs)];
  const kept = new Map<string, T>();
  for (const their of theirs) {
    const [was, my] = [before.get(their.id), here.get(their.id)];
    if (!was) kept.set(their.id, my ?? their);
    else if (!my) {
      // Taken away here: it stays only where they changed it.
      if (!same(was, their)) kept.set(their.id, their);
    } else if (my === was || same(was, my)) kept.set(their.id, their);
    else kept.set(their.id, same(was, their) ? my : how.merge(was, my, their));
  }
  for (const my of mine) {
    if (there.has(my.id)) continue;
    const was = before.get(my.id);
    if (!was || (was !== my && !same(was, my) && how.gone(my))) kept.set(my.id, my);
  }
  return inOrder(base, mine, theirs, kept);
}

/** The order of theirs where they changed it, else of mine; what is only in the other comes in front of what it lay in front of there. */
function inOrder<T extends Part>(
  base: readonly T[],
  mine: readonly T[],
  theirs: readonly T[],
  kept: ReadonlyMap<string, T>,
): T[] {
  const among = (list: readonly T[], other: readonly T[]): string[] => {
    const known = new Set(other.map(({ id }) => id));
    return list.flatMap(({ id }) => (known.has(id) ? [id] : []));
  };
  const theyDid = !same(among(base, theirs), among(theirs, base));
  const iDid = !same(among(base, mine), among(mine, base));
  const [first, second] = iDid && !theyDid ? [mine, theirs] : [theirs, mine];
  const order = first.flatMap(({ id }) => (kept.has(id) ? [id] : []));
  const placed = new Set(order);
  second.forEach(({ id }, index) => {
    if (placed.has(id) || !kept.has(id)) return;
    // What is new on top of one list is on top of all.
    const below = second
      .slice(0, index)
      .reverse()
      .find((one) => placed.has(one.id));
    const onTop = index > 0 && second.slice(index).every((one) => !placed.has(one.id));
    if (onTop || !below) order.splice(onTop ? order.length : 0, 0, id);
    else order.splice(order.indexOf(below.id) + 1, 0, id);
    placed.add(id);
  });
  return order.flatMap((id) => kept.get(id) ?? []);
}

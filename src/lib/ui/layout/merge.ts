import { sameValue as same } from '$lib/core/num/same';
import { mapFills, type Shape } from '$lib/core/recipe/layout';
import type { LayoutDoc } from './doc';

/** What two people made of one layout, as one: `clashes` names the shapes of which both versions were kept. */
export type Merged = { doc: LayoutDoc; clashes: string[] };

/**
 * Brings together what was changed here (`mine`) and what was saved elsewhere (`theirs`) since `base`. What only one of
 * them changed is taken from it; a shape that both changed stays as theirs and is kept as a copy of mine in front; one
 * that only one of them took away is gone, unless the other changed it. `fresh` makes ids for copies.
 */
export function mergeDocs(base: LayoutDoc, mine: LayoutDoc, theirs: LayoutDoc, fresh: () => string): Merged {
  return merged(base, mine, theirs, (shape) => mineOf(shape, fresh));
}

/** An earlier or later state of one's own work with what was saved elsewhere since `base`: of what both changed, theirs stays. */
export const withTheirs = (base: LayoutDoc, held: LayoutDoc, theirs: LayoutDoc): LayoutDoc =>
  merged(base, held, theirs, () => null).doc;

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

/** `copied` makes the copy of a shape of mine that both changed, or none. */
function merged(
  base: LayoutDoc,
  mine: LayoutDoc,
  theirs: LayoutDoc,
  copied: (shape: Shape) => Shape | null,
): Merged {
  const byId = (doc: LayoutDoc) => new Map(doc.shapes.map((shape) => [shape.id, shape]));
  const [before, here, there] = [byId(base), byId(mine), byId(theirs)];
  const clashes: string[] = [];
  const copies: Shape[] = [];
  const shapes: Shape[] = [];
  const clash = (my: Shape, name: string): void => {
    const copy = copied(my);
    if (copy) copies.push(copy);
    clashes.push(name);
  };
  for (const theirShape of theirs.shapes) {
    const { id } = theirShape;
    const [was, my] = [before.get(id), here.get(id)];
    const iChanged = was !== undefined && !same(was, my);
    const theyChanged = was !== undefined && !same(was, theirShape);
    if (!iChanged || (!my && theyChanged)) shapes.push(theirShape);
    else if (my && !theyChanged) shapes.push(my);
    else if (my && same(my, theirShape)) shapes.push(theirShape);
    else if (my) {
      shapes.push(theirShape);
      clash(my, theirShape.name);
    }
  }
  // What I drew, and what they took away while I went on with it.
  for (const my of mine.shapes) {
    if (there.has(my.id)) continue;
    const was = before.get(my.id);
    if (!was) copies.push(my);
    else if (!same(was, my)) clash(my, my.name);
  }
  const stack = stacked(base, mine, theirs, shapes);
  return { doc: { ...mergePage(base, mine, theirs), shapes: [...stack, ...copies] }, clashes };
}

/** Shapes of theirs in the order of their stack, or in mine where only I changed it. */
function stacked(base: LayoutDoc, mine: LayoutDoc, theirs: LayoutDoc, shapes: readonly Shape[]): Shape[] {
  const order = ({ shapes: all }: LayoutDoc, among: LayoutDoc): string[] => {
    const known = new Set(among.shapes.map(({ id }) => id));
    return all.flatMap(({ id }) => (known.has(id) ? [id] : []));
  };
  const theyDid = !same(order(base, theirs), order(theirs, base));
  if (theyDid || same(order(base, mine), order(mine, base))) return [...shapes];
  const held = new Map(shapes.map((shape) => [shape.id, shape]));
  const stack = mine.shapes.flatMap(({ id }) => held.get(id) ?? []);
  const placed = new Set(stack.map(({ id }) => id));
  // What is only in theirs comes in front of what it lay in front of there.
  shapes.forEach((shape, index) => {
    if (placed.has(shape.id)) return;
    const below = shapes[index - 1];
    const at = below ? stack.findIndex(({ id }) => id === below.id) + 1 : 0;
    stack.splice(at, 0, shape);
    placed.add(shape.id);
  });
  return stack;
}

function mineOf(shape: Shape, fresh: () => string): Shape {
  const copy = mapFills(shape, (fill) => ({ ...fill, id: fresh() }));
  return { ...copy, id: fresh(), name: `${shape.name.slice(0, 70)}, mine` };
}

/** Page settings and groups: mine where only I changed them, else theirs. */
function mergePage(base: LayoutDoc, mine: LayoutDoc, theirs: LayoutDoc): LayoutDoc {
  const keys = Object.keys(theirs) as (keyof LayoutDoc)[];
  const mineOnly = keys.filter(
    (key) =>
      key !== 'shapes' && key !== 'groups' && !same(base[key], mine[key]) && same(base[key], theirs[key]),
  );
  const kept = Object.fromEntries(mineOnly.map((key) => [key, mine[key]])) as Partial<LayoutDoc>;
  const known = new Map(theirs.groups.map((group) => [group.id, group]));
  const was = new Map(base.groups.map((group) => [group.id, group]));
  for (const group of mine.groups) {
    const theirGroup = known.get(group.id);
    const changed = !same(was.get(group.id), group);
    if (changed && (!theirGroup || same(was.get(group.id), theirGroup))) known.set(group.id, group);
  }
  return { ...theirs, ...kept, groups: [...known.values()] };
}

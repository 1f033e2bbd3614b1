import { mapFills, type Shape } from '$lib/core/recipe/layout';
import type { LayoutDoc } from './doc';

/** What two people made of one layout, as one: `clashes` names the shapes of which both versions were kept. */
export type Merged = { doc: LayoutDoc; clashes: string[] };

const same = (one: unknown, other: unknown): boolean => JSON.stringify(one) === JSON.stringify(other);

/**
 * Brings together what was changed here (`mine`) and what was saved elsewhere (`theirs`) since `base`. What only one of
 * them changed is taken from it; a shape that both changed stays as theirs and is kept as a copy of mine in front; one
 * that only one of them took away is gone, unless the other changed it. `fresh` makes ids for copies.
 */
export function mergeDocs(base: LayoutDoc, mine: LayoutDoc, theirs: LayoutDoc, fresh: () => string): Merged {
  const byId = (doc: LayoutDoc) => new Map(doc.shapes.map((shape) => [shape.id, shape]));
  const [before, here, there] = [byId(base), byId(mine), byId(theirs)];
  const clashes: string[] = [];
  const copies: Shape[] = [];
  const shapes: Shape[] = [];
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
      copies.push(mineOf(my, fresh));
      clashes.push(theirShape.name);
    }
  }
  // What I drew, and what they took away while I went on with it.
  for (const my of mine.shapes) {
    if (there.has(my.id)) continue;
    const was = before.get(my.id);
    if (!was) copies.push(my);
    else if (!same(was, my)) {
      copies.push(mineOf(my, fresh));
      clashes.push(my.name);
    }
  }
  return { doc: { ...mergePage(base, mine, theirs), shapes: [...shapes, ...copies] }, clashes };
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

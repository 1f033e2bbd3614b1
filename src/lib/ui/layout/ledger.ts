import type { Fill, PatternFill } from '$lib/core/recipe/fill';
import { allFills, groupsOf, type Shape, type ShapeGroup } from '$lib/core/recipe/layout';
import { repeatsAcross } from '$lib/core/lattice/whole';
import type { CompiledPattern } from '$lib/core/scene/pattern';
import type { LayoutDoc } from './doc';

/** "5.7 × 4.4": how often the unit with its gap goes into the shape's frame, along the pattern's own axes. */
export function unitsOver(shape: Shape, fill: PatternFill, pattern: CompiledPattern): string {
  const { width, height } = pattern.scene.pitch;
  const say = (count: number): string => String(Number(count.toFixed(1)));
  return `${say(repeatsAcross(shape.width, width * fill.scaleX))} × ${say(repeatsAcross(shape.height, height * fill.scaleY))}`;
}

/** A row of the ledger: a shape, one of its fills, or the head of a group whose rows follow it. `depth` counts the groups around it. */
export type LedgerItem =
  | { kind: 'shape'; id: string; depth: number; shape: Shape; open: boolean }
  | { kind: 'fill'; id: string; depth: number; shape: Shape; fill: Fill; place: number }
  | { kind: 'group'; id: string; depth: number; group: ShapeGroup };

/**
 * All rows, front first: groups before what lies in them, those that are `folded` without it; shapes that are `opened`
 * before a row for each of their fills, top first. `place` counts these from 1.
 */
export function ledgerItems(
  doc: LayoutDoc,
  { folded, opened }: { folded: ReadonlySet<string>; opened: ReadonlySet<string> },
  shows: (shape: Shape) => boolean,
): LedgerItem[] {
  const items: LedgerItem[] = [];
  const begun = new Set<string>();
  for (const shape of [...doc.shapes].reverse()) {
    if (!shows(shape)) continue;
    const chain = groupsOf(doc.groups, shape.group).reverse();
    let unfolded = true;
    chain.forEach((group, depth) => {
      if (unfolded && !begun.has(group.id)) items.push({ kind: 'group', id: group.id, depth, group });
      if (unfolded) begun.add(group.id);
      unfolded &&= !folded.has(group.id);
    });
    if (!unfolded) continue;
    const depth = chain.length;
    const open = opened.has(shape.id);
    items.push({ kind: 'shape', id: shape.id, depth, shape, open });
    if (!open) continue;
    [...allFills(shape)].reverse().forEach((fill, index) => {
      items.push({ kind: 'fill', id: fill.id, depth: depth + 1, shape, fill, place: index + 1 });
    });
  }
  return items;
}

/** True for shapes of which the name, a group, or what fills them holds `text`; `say` names fills and their colourways. */
export function matches(
  doc: LayoutDoc,
  text: string,
  say: (fill: Shape['fills'][number]) => string,
): (shape: Shape) => boolean {
  const wanted = text.trim().toLowerCase();
  if (wanted === '') return () => true;
  return (shape) =>
    [
      shape.name,
      ...groupsOf(doc.groups, shape.group).map(({ name }) => name),
      ...allFills(shape).map(say),
    ].some((part) => part.toLowerCase().includes(wanted));
}

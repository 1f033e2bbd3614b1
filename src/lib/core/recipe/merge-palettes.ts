import { sameValue } from '../num/same';
import type { PaletteEntry } from './library';

/** A palette as it is edited. */
export type PaletteDoc = { name: string; projectId: string | null; colours: readonly PaletteEntry[] };

/**
 * Brings two changes of one palette together, colour by colour: what only one of them changed is as they left it, what
 * one took out is out, what either added is there. Where both changed the same, it is as in `mine`, and they clash. The
 * order is theirs, unless only `mine` has another one than `base`.
 */
export function mergePalettes(
  base: PaletteDoc,
  mine: PaletteDoc,
  theirs: PaletteDoc,
): { doc: PaletteDoc; clashes: boolean } {
  let clashes = false;
  const either = <T>(from: T, own: T, other: T): T => {
    if (sameValue(own, from)) return other;
    if (!sameValue(other, from) && !sameValue(other, own)) clashes = true;
    return own;
  };
  const [before, own, other] = [base, mine, theirs].map(
    ({ colours }) => new Map(colours.map((one) => [one.id, one])),
  ) as [Entries, Entries, Entries];
  const [order, late] = moved(base, mine) && !moved(base, theirs) ? [mine, theirs] : [theirs, mine];
  const ids = new Set([...order.colours, ...late.colours].map(({ id }) => id));
  const colours = [...ids].flatMap((id) => either(before.get(id), own.get(id), other.get(id)) ?? []);
  const name = either(base.name, mine.name, theirs.name);
  const projectId = either(base.projectId, mine.projectId, theirs.projectId);
  return { doc: { name, projectId, colours }, clashes };
}

type Entries = Map<string, PaletteEntry>;

/** Whether colours that are in both lie in another order. */
function moved(one: PaletteDoc, other: PaletteDoc): boolean {
  const ids = (from: PaletteDoc, within: PaletteDoc): string[] => {
    const there = new Set(within.colours.map(({ id }) => id));
    return from.colours.map(({ id }) => id).filter((id) => there.has(id));
  };
  return !sameValue(ids(one, other), ids(other, one));
}

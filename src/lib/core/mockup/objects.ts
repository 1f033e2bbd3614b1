import { CLOTH, CUSHION, BANNER, TOTE, TOWEL } from './cloths';
import type { NumberOf, ObjectEntry, ObjectNumbers, Round } from './object-entry';
import { BAG, BOX, CARDS, POUCH, WRAP } from './packs';
import { sheetOf, type Sheet } from './sheet';
import { BOARD, LAPTOP, PHONE, POSTER, WALL } from './shown';
import { CONE_CUP, CUP, LABEL, MUG } from './vessels';

/** What patterns are made for, with true sizes in mm. */
export const OBJECT_KINDS = [
  'cup',
  'cone',
  'mug',
  'label',
  'box',
  'wrap',
  'bag',
  'pouch',
  'tote',
  'cushion',
  'towel',
  'cloth',
  'banner',
  'poster',
  'board',
  'cards',
  'phone',
  'laptop',
  'wall',
] as const;
export type ObjectKind = (typeof OBJECT_KINDS)[number];

export const isObjectKind = (text: unknown): text is ObjectKind =>
  (OBJECT_KINDS as readonly unknown[]).includes(text);

/** An object by its numbers. */
export type ObjectSpec = { kind: ObjectKind; numbers: ObjectNumbers };

/** What is known of each kind of object. */
export const OBJECTS: Readonly<Record<ObjectKind, ObjectEntry>> = {
  cup: CUP,
  cone: CONE_CUP,
  mug: MUG,
  label: LABEL,
  box: BOX,
  wrap: WRAP,
  bag: BAG,
  pouch: POUCH,
  tote: TOTE,
  cushion: CUSHION,
  towel: TOWEL,
  cloth: CLOTH,
  banner: BANNER,
  poster: POSTER,
  board: BOARD,
  cards: CARDS,
  phone: PHONE,
  laptop: LAPTOP,
  wall: WALL,
};

/** The numbers that an object starts with. */
export const freshNumbers = (kind: ObjectKind): ObjectNumbers =>
  Object.fromEntries(OBJECTS[kind].numbers.map(({ key, start }) => [key, start]));

/** Reads an object's numbers; those that are missing are those it starts with. */
export function numberOf({ kind, numbers }: ObjectSpec): NumberOf {
  const starts = freshNumbers(kind);
  return (key) => numbers[key] ?? starts[key] ?? 0;
}

/** How an object is closed all round, where it is. */
export const roundOf = (object: ObjectSpec): Round | null =>
  OBJECTS[object.kind].round?.(numberOf(object)) ?? null;

/** The cut sheet of an object, or a sentence that says why its numbers make none. Numbers that are missing are those it starts with. */
export function cutSheet(object: ObjectSpec): { ok: true; sheet: Sheet } | { ok: false; message: string } {
  const entry = OBJECTS[object.kind];
  const of = numberOf(object);
  for (const { key, label, least, most } of entry.numbers) {
    const value = of(key);
    if (!(value >= least && value <= most))
      return { ok: false, message: `${label} lies between ${least} and ${most} mm.` };
  }
  const fault = entry.fault?.(of) ?? null;
  return fault
    ? { ok: false, message: fault }
    : { ok: true, sheet: sheetOf(entry.panels(of), entry.blanks?.(of)) };
}

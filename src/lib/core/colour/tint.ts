import type { Hex } from './parse';

/**
 * A colour as it is kept: `colour` is what was last seen, `link` the id of the palette colour that it follows. Whoever
 * reads a document puts the present colour of the link in its place; where the link leads nowhere the colour stands.
 */
export type Tint = { colour: Hex; link?: string };

/** Tells the present colour of a palette colour by its id. */
export type Links = Pick<ReadonlyMap<string, Hex>, 'get'>;

/** A tint with the present colour of its link; the same object where nothing changes. */
export function follow<T extends Tint>(tint: T, links: Links): T {
  const now = tint.link === undefined ? undefined : links.get(tint.link);
  return now === undefined || now === tint.colour ? tint : { ...tint, colour: now };
}

/** A list with `change` applied to each; the same list where every item stays the same object. */
export function mapSame<T>(items: readonly T[], change: (item: T) => T): T[] {
  let same = true;
  const changed = items.map((item) => {
    const next = change(item);
    same &&= next === item;
    return next;
  });
  return same ? (items as T[]) : changed;
}

/** Tints by key with the present colours of their links; the same object where nothing changes. */
export function followAll(
  tints: Readonly<Record<string, Tint>>,
  links: Links,
): Readonly<Record<string, Tint>> {
  const entries = Object.entries(tints);
  const followed = mapSame(entries, (entry): [string, Tint] => {
    const now = follow(entry[1], links);
    return now === entry[1] ? entry : [entry[0], now];
  });
  return followed === entries ? tints : Object.fromEntries(followed);
}

/** The ids of the palette colours that tints follow, each once. */
export const linksOf = (tints: readonly Tint[]): string[] => [
  ...new Set(tints.flatMap(({ link }) => (link === undefined ? [] : [link]))),
];

/** The plain colours of tints by key. */
export const plainColours = (tints: Readonly<Record<string, Tint>>): Record<string, Hex> =>
  Object.fromEntries(Object.entries(tints).map(([key, tint]) => [key, tint.colour]));

/** A colour with its link, where there is one. */
export const tintOf = (colour: Hex, link?: string | null): Tint =>
  link === undefined || link === null ? { colour } : { colour, link };

/** A holder of a colour with another one, following a palette colour or, without `link`, none. */
export function retinted<T extends Tint>(holder: T, colour: Hex, link?: string): T {
  const { link: _link, ...rest } = holder;
  return { ...rest, ...tintOf(colour, link) } as T;
}

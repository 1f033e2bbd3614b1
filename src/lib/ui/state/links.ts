import type { PaletteData } from '$lib/contract/data';
import type { Hex } from '$lib/core/colour/parse';

/** The present colours of the palette colours that a page knows, by id. */
export type KnownLinks = ReadonlyMap<string, Hex>;

/** The present colours of all palette colours that a page knows, over those it knew before. */
export function linksFrom(palettes: readonly PaletteData[], before: KnownLinks = new Map()): KnownLinks {
  const links = new Map(before);
  for (const { colours } of palettes) for (const { id, hex } of colours) links.set(id, hex);
  return links;
}

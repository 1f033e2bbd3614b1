import type { PaletteData } from '$lib/contract/data';
import type { Links } from '$lib/core/colour/tint';

/** The present colours of all palette colours that a page knows, over those it knew before. */
export function linksFrom(palettes: readonly PaletteData[], before: Links = new Map()): Links {
  const links = new Map(before);
  for (const { colours } of palettes) for (const { id, hex } of colours) links.set(id, hex);
  return links;
}

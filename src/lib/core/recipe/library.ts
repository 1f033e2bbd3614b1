import type { Colourway } from '../colour/colourway';
import type { InkUse } from '../colour/inks';
import type { Hex } from '../colour/parse';
import { linksOf } from '../colour/tint';
import type { Recipe } from './recipe';

/** Where a pattern comes from: `licence` is an SPDX identifier or free text; `attribution` says that a credit is due. */
export type PatternCredit = { author: string; source: string; licence: string; attribution: boolean };

/** A pattern as files carry it: everything but its revisions and uses. */
export type KeptPattern = {
  id: string;
  name: string;
  description: string;
  tags: string[];
  collections: string[];
  credit: PatternCredit;
  recipe: Recipe;
  colourways: Colourway[];
};

/**
 * One entry of a palette. `hex` is what is shown: a colour outside sRGB is kept as it was given in `css`; a gradient
 * has two or more stops and shows its first as `hex`. A colour with an `ink` is printed in it and not in process colours.
 */
export type PaletteEntry = {
  id: string;
  name: string;
  hex: Hex;
  css?: string | null;
  gradient?: { at: number; hex: Hex; link?: string }[] | null;
  ink?: InkUse | null;
};

export type KeptPalette = { id: string; name: string; colours: PaletteEntry[] };

/** A file that patterns draw: a picture, or what a motif was made from. `data` is Base64. */
export type KeptAsset = { hash: string; mediaType: string; fileName: string; data: string };

/** A set of patterns with all that they need, as library files carry it. */
export type LibraryContent = { patterns: KeptPattern[]; palettes: KeptPalette[]; assets: KeptAsset[] };

/** The version in which library files are written. */
export const LIBRARY_VERSION = 1;

/** The assets that a recipe refers to, each once. */
export function recipeAssets(recipe: Recipe): string[] {
  if (recipe.kind === 'measured') return [];
  // What is made of the picture, or of numbers, is made again wherever it is missing.
  if (recipe.kind === 'pictured') {
    const { asset, texture } = recipe.pictured.source;
    return texture ? [] : [asset];
  }
  const found = recipe.motifs.flatMap(({ content }) => {
    if (content.kind !== 'drawing') return [];
    const pictures = content.elements.flatMap(({ picture }) =>
      picture ? [picture.asset, ...(picture.cut ? [picture.cut.asset] : [])] : [],
    );
    return content.asset === null ? pictures : [content.asset, ...pictures];
  });
  return [...new Set(found)];
}

/** The palette colours that a pattern follows, in its slots or colourways. */
export function patternLinks({ recipe, colourways }: Pick<KeptPattern, 'recipe' | 'colourways'>): string[] {
  return linksOf([...recipe.slots, ...colourways.flatMap((way) => Object.values(way.colours))]);
}

/** The credits that are due among patterns: one line each. */
export function creditsDue(patterns: readonly Pick<KeptPattern, 'name' | 'credit'>[]): string[] {
  return patterns.flatMap(({ name, credit }) => (credit.attribution ? [creditLine(name, credit)] : []));
}

/** "Shallow End: Oona Pell, Tile survey, CC-BY-4.0". */
export function creditLine(name: string, { author, source, licence }: PatternCredit): string {
  const said = [author, source, licence].filter((text) => text !== '').join(', ');
  return `${name}: ${said || 'no author is noted'}`;
}

/** A name as part of an address or file name: letters, digits and hyphens; `else` for a name without any. */
export function slug(name: string, otherwise = 'pattern'): string {
  const plain = name
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-+|-+$/g, '')
    .toLowerCase();
  return plain.slice(0, 60) || otherwise;
}

/** A slug that is not among those taken; it is added to them. */
export function freeSlug(name: string, taken: Set<string>, otherwise = 'pattern'): string {
  const stem = slug(name, otherwise);
  let free = stem;
  for (let number = 2; taken.has(free); number += 1) free = `${stem}-${number}`;
  taken.add(free);
  return free;
}

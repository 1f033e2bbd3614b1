import { Inks, type InkedColour } from '../colour/inks';
import { fillLinks } from '../recipe/links';
import { mapFills, type Layout } from '../recipe/layout';
import type { Fill } from '../recipe/fill';
import type { PatternRevisions } from './library';

/** A palette as far as inks are concerned; `projectId` is `null` where all projects share it. */
export type InkPalette = { projectId: string | null; colours: readonly (InkedColour & { id: string })[] };

/**
 * The inks that layouts of a project are printed in: those of the project's palettes, then those of shared ones of which something on the
 * pages follows a colour.
 */
export function inksOfPages(
  palettes: readonly InkPalette[],
  projectId: string,
  pages: readonly Layout[],
  patterns: readonly PatternRevisions[],
): Inks {
  const inked = palettes.filter(({ colours }) => colours.some(({ ink }) => ink));
  if (inked.length === 0) return new Inks();
  const followed = linksOfPages(pages, patterns);
  const own = inked.filter((palette) => palette.projectId === projectId);
  const shared = inked.filter(
    (palette) => palette.projectId === null && palette.colours.some(({ id }) => followed.has(id)),
  );
  return new Inks([...own, ...shared].flatMap(({ colours }) => colours));
}

/** The palette colours that pages and the patterns on them follow. */
function linksOfPages(pages: readonly Layout[], patterns: readonly PatternRevisions[]): Set<string> {
  const found = new Set<string>();
  const add = (link: string | null | undefined): void => {
    if (link) found.add(link);
  };
  for (const { shapes, backgroundLink } of pages) {
    add(backgroundLink);
    const look = (fill: Fill): Fill => {
      for (const link of fillLinks(fill)) add(link);
      return fill;
    };
    for (const shape of shapes) mapFills(shape, look);
  }
  for (const { recipes, colourways } of patterns) {
    for (const { slots } of Object.values(recipes)) for (const { link } of slots) add(link);
    for (const { colours } of colourways) for (const { link } of Object.values(colours)) add(link);
  }
  return found;
}

import type { PaletteEntry } from '../recipe/library';

/** A colour found in a file; it gets an id when it is kept. */
export type FoundColour = Omit<PaletteEntry, 'id'>;
export type FoundPalette = { name: string; colours: FoundColour[]; notes: string[] };

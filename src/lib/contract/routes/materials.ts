import type { CutOut } from '../../core/recipe/cut-out';
import type { Kept, SetLine, Versioned } from '../answers';
import type {
  ColourUses,
  CutPicture,
  ImportedMotif,
  PaletteData,
  PressProfile,
  PressTables,
  StudioFont,
  TraceBy,
  Traced,
} from '../data';
import type { Archiving, NewPalette, PaletteSave, PressQuery, PictureSide } from '../given';
import { LIMITS } from '../../core/recipe/limits';
import { cutOutSchema } from '../pictured-schemas';
import { schemas } from '../schemas';
import { gives, spec, takes, type RouteSpec } from './spec';

/** What patterns and layouts are made with: motifs, fonts, presses and palettes. */
export const MATERIAL_ROUTES = {
  paletteFile: spec('GET', '/palettes/{id}/file', 'viewer', 'A palette as design tokens, CSS, CSV or SVG', {
    query: takes<{ as: 'tokens' | 'css' | 'csv' | 'svg' }>(schemas.palettesAs),
    answers: 'application/octet-stream',
  }),
  importMotif: spec('POST', '/motifs', 'contributor', 'Bring in an SVG file as a motif', {
    gives: gives<ImportedMotif>(),
    perMinute: 600,
    body: takes<{ fileName: string; svg: string }>(schemas.motifFile),
    maxBytes: 12_000_000,
  }),
  importPicture: spec(
    'POST',
    '/motifs/pictures',
    'contributor',
    'Bring in a PNG, JPEG or WebP picture as a motif',
    { gives: gives<ImportedMotif>(), perMinute: 600, takesFile: true, maxBytes: LIMITS.pictureBytes },
  ),
  motifFile: spec(
    'GET',
    '/motifs/{hash}',
    'viewer',
    'The file that a motif was made from, or a picture in it',
    {
      query: takes<{ look?: string; side?: PictureSide }>(schemas.motifQuery),
      answers: 'image/*',
    },
  ),
  cutPicture: spec('POST', '/motifs/{hash}/cut-outs', 'contributor', 'A subject cut out of a picture', {
    gives: gives<CutPicture>(),
    body: takes<CutOut>(cutOutSchema),
  }),
  tracePicture: spec('POST', '/motifs/{hash}/tracings', 'contributor', 'A picture as paths of few colours', {
    gives: gives<Traced>(),
    body: takes<TraceBy>(schemas.traceBy),
  }),
  listFonts: spec('GET', '/fonts', 'viewer', 'The fonts that people brought, each with its licence', {
    gives: gives<StudioFont[]>(),
  }),
  addFont: spec('POST', '/fonts', 'designer', 'Take in a font: WOFF2, WOFF, OTF or TTF', {
    gives: gives<StudioFont>(),
    perMinute: 120,
    query: takes<{ licence: string }>(schemas.fontQuery),
    takesFile: true,
    maxBytes: LIMITS.fontBytes,
  }),
  removeFont: spec('DELETE', '/fonts/{id}', 'designer', 'Take a font out that no words are set in', {
    gives: gives<Kept>(),
  }),
  fontFile: spec('GET', '/fonts/{id}/file', 'viewer', 'A font as TrueType or OpenType', {
    answers: 'font/sfnt',
  }),
  setLine: spec(
    'GET',
    '/fonts/{id}/line',
    'viewer',
    'A line of words as outlines, kerned and with ligatures',
    { gives: gives<SetLine>(), query: takes<{ text: string; size: number }>(schemas.lineQuery) },
  ),
  listPressProfiles: spec('GET', '/press-profiles', 'viewer', 'The ICC profiles of presses', {
    gives: gives<PressProfile[]>(),
  }),
  addPressProfile: spec('POST', '/press-profiles', 'designer', 'Take in the ICC profile of a press', {
    gives: gives<PressProfile>(),
    perMinute: 120,
    takesFile: true,
    maxBytes: LIMITS.profileBytes,
  }),
  pressTable: spec(
    'GET',
    '/press-profiles/{id}/table',
    'viewer',
    'How much ink a press takes for colours and how far they come out, over a table of 25³ colours',
    { gives: gives<PressTables>(), query: takes<PressQuery, 'intent' | 'blackPoint'>(schemas.pressQuery) },
  ),
  removePressProfile: spec(
    'DELETE',
    '/press-profiles/{id}',
    'designer',
    'Take a press profile out that no project uses',
    { gives: gives<Kept>() },
  ),
  listPalettes: spec('GET', '/palettes', 'viewer', 'All palettes with their colours', {
    gives: gives<PaletteData[]>(),
  }),
  paletteUses: spec('GET', '/palettes/{id}/uses', 'viewer', 'Where the colours of a palette are followed', {
    gives: gives<ColourUses>(),
  }),
  createPalette: spec('POST', '/palettes', 'designer', 'A new palette', {
    gives: gives<PaletteData>(),
    body: takes<NewPalette>(schemas.createPalette),
  }),
  savePalette: spec(
    'PUT',
    '/palettes/{id}',
    'designer',
    'Replace a palette’s name and colours; whatever follows them shows it',
    { gives: gives<Versioned>(), body: takes<PaletteSave>(schemas.savePalette) },
  ),
  archivePalette: spec('PUT', '/palettes/{id}/archived', 'designer', 'Archive a palette or restore it', {
    gives: gives<Kept>(),
    body: takes<Archiving>(schemas.archived),
  }),
} satisfies Record<string, RouteSpec>;

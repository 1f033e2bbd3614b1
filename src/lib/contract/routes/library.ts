import { LIMITS } from '../../core/recipe/limits';
import { cutOutSchema } from '../pictured-schemas';
import { schemas } from '../schemas';
import { spec, type RouteSpec } from './spec';

/** The library: patterns, what they are made of, palettes, fonts and presses. */
export const LIBRARY_ROUTES = {
  listPatterns: spec(
    'GET',
    '/patterns',
    'viewer',
    'One page of the patterns that match, best match first or sorted',
    {
      query: schemas.patternQuery,
    },
  ),
  createPattern: spec('POST', '/patterns', 'contributor', 'A new pattern with a draft', {
    body: schemas.createPattern,
    maxBytes: LIMITS.recipeBytes,
  }),
  getPattern: spec('GET', '/patterns/{id}', 'viewer', 'One pattern: recipe, draft, revisions, uses'),
  patchPattern: spec(
    'PATCH',
    '/patterns/{id}',
    'designer',
    'Rename, describe, tag, collect or credit a pattern; no use changes',
    {
      body: schemas.patchPattern,
    },
  ),
  deletePattern: spec('DELETE', '/patterns/{id}', 'designer', 'Delete an archived, unused pattern for good', {
    body: schemas.deletePattern,
  }),
  libraryFacets: spec('GET', '/library', 'viewer', 'What the library can be narrowed by, with counts'),
  hangStock: spec(
    'POST',
    '/stock',
    'designer',
    'Hang the patterns that ship with Isle, those that are not there yet',
  ),
  editPatterns: spec(
    'POST',
    '/patterns/edits',
    'designer',
    'Tag, collect, credit or archive many patterns at once',
    {
      body: schemas.editPatterns,
    },
  ),
  putBack: spec('PUT', '/patterns/edits', 'designer', 'Put back what patterns were before an edit of many', {
    body: schemas.putBack,
  }),
  saveColourways: spec(
    'PUT',
    '/patterns/{id}/colourways',
    'designer',
    'Replace the colourways of a pattern; uses follow',
    {
      body: schemas.saveColourways,
    },
  ),
  holdUses: spec(
    'PUT',
    '/patterns/{id}/uses',
    'designer',
    'Hold uses at the revision they show, or let them follow',
    {
      body: schemas.holdUses,
    },
  ),
  replaceUses: spec(
    'POST',
    '/patterns/{id}/replaced',
    'designer',
    'Put another pattern in its place, everywhere or in chosen projects',
    { body: schemas.replaceUses },
  ),
  recolour: spec(
    'POST',
    '/recolours',
    'designer',
    'Exchange the colours of one palette for another’s in some layouts',
    {
      body: schemas.recolour,
    },
  ),
  listChanges: spec(
    'GET',
    '/changes',
    'viewer',
    'The latest changes of many fills that can still be undone; with a pattern those about it',
    {
      query: schemas.changesQuery,
    },
  ),
  undoBulk: spec('POST', '/changes/{id}/undone', 'designer', 'Undo a replacement or recolouring as one step'),
  handOut: spec(
    'POST',
    '/handouts',
    'contributor',
    'Patterns as a file: SVG, package, tile, CSS or tokens; without ids the whole library',
    { perMinute: 240, body: schemas.handOut, answers: 'application/octet-stream' },
  ),
  readFile: spec(
    'POST',
    '/intake/files',
    'designer',
    'Read a file and say what it holds; nothing is taken in yet',
    { perMinute: 120, takesFile: true, maxBytes: LIMITS.libraryBytes },
  ),
  takeIn: spec('POST', '/intake', 'designer', 'Take in what was read, all in one transaction', {
    body: schemas.takeIn,
  }),
  paletteFile: spec('GET', '/palettes/{id}/file', 'viewer', 'A palette as design tokens, CSS, CSV or SVG', {
    query: schemas.palettesAs,
    answers: 'application/octet-stream',
  }),
  createCollection: spec('POST', '/collections', 'designer', 'A new collection', {
    body: schemas.collectionName,
  }),
  renameCollection: spec('PATCH', '/collections/{id}', 'designer', 'Rename a collection', {
    body: schemas.collectionName,
  }),
  removeCollection: spec(
    'DELETE',
    '/collections/{id}',
    'designer',
    'Take a collection apart; its patterns stay',
  ),
  archivePattern: spec('PUT', '/patterns/{id}/archived', 'designer', 'Archive a pattern or restore it', {
    body: schemas.archived,
  }),
  saveDraft: spec('PUT', '/patterns/{id}/draft', 'contributor', 'Keep work in progress', {
    body: schemas.saveDraft,
    maxBytes: LIMITS.recipeBytes,
  }),
  publish: spec(
    'POST',
    '/patterns/{id}/revisions',
    'designer',
    'Publish the draft as the next revision; chosen uses are held',
    {
      body: schemas.publish,
    },
  ),
  publishPreview: spec(
    'GET',
    '/patterns/{id}/uses',
    'viewer',
    'Every use with its shape: what publishing would change',
  ),
  keepAsNew: spec(
    'POST',
    '/patterns/{id}/copies',
    'designer',
    'Make another pattern of a recipe, published at once',
    {
      body: schemas.keepAsNew,
      maxBytes: LIMITS.recipeBytes,
    },
  ),
  dropDraft: spec('DELETE', '/patterns/{id}/draft', 'contributor', 'Forget unfinished work', {
    body: schemas.base,
  }),
  restoreRevision: spec(
    'POST',
    '/patterns/{id}/revisions/{number}/restored',
    'designer',
    'Publish an older revision again, as the newest',
    { body: schemas.base },
  ),
  getRevision: spec('GET', '/patterns/{id}/revisions/{number}', 'viewer', 'The recipe of one revision'),
  swatch: spec(
    'GET',
    '/patterns/{id}/revisions/{number}/swatch',
    'viewer',
    'A sample strip as SVG; the number may be “draft”',
    {
      query: schemas.swatchQuery,
      answers: 'image/svg+xml',
    },
  ),
  codeFile: spec(
    'GET',
    '/patterns/{id}/revisions/{number}/{file}',
    'viewer',
    'A pattern for pages and programs: tile.svg, tile.png, fill.svg, pattern.css, pattern.json or tokens.json; the number may be “newest”',
    { query: schemas.codeQuery, answers: '*/*', openable: true },
  ),
  importMotif: spec('POST', '/motifs', 'contributor', 'Bring in an SVG file as a motif', {
    perMinute: 600,
    body: schemas.motifFile,
    maxBytes: 12_000_000,
  }),
  importPicture: spec(
    'POST',
    '/motifs/pictures',
    'contributor',
    'Bring in a PNG, JPEG or WebP picture as a motif',
    { perMinute: 600, takesFile: true, maxBytes: LIMITS.pictureBytes },
  ),
  motifFile: spec(
    'GET',
    '/motifs/{hash}',
    'viewer',
    'The file that a motif was made from, or a picture in it',
    {
      query: schemas.motifQuery,
      answers: 'image/*',
    },
  ),
  cutPicture: spec('POST', '/motifs/{hash}/cut-outs', 'contributor', 'A subject cut out of a picture', {
    body: cutOutSchema,
  }),
  tracePicture: spec('POST', '/motifs/{hash}/tracings', 'contributor', 'A picture as paths of few colours', {
    body: schemas.traceBy,
  }),
  listFonts: spec('GET', '/fonts', 'viewer', 'The fonts that people brought, each with its licence'),
  addFont: spec('POST', '/fonts', 'designer', 'Take in a font: WOFF2, WOFF, OTF or TTF', {
    perMinute: 120,
    query: schemas.fontQuery,
    takesFile: true,
    maxBytes: LIMITS.fontBytes,
  }),
  removeFont: spec('DELETE', '/fonts/{id}', 'designer', 'Take a font out that no words are set in'),
  fontFile: spec('GET', '/fonts/{id}/file', 'viewer', 'A font as TrueType or OpenType', {
    answers: 'font/sfnt',
  }),
  setLine: spec(
    'GET',
    '/fonts/{id}/line',
    'viewer',
    'A line of words as outlines, kerned and with ligatures',
    {
      query: schemas.lineQuery,
    },
  ),
  listPressProfiles: spec('GET', '/press-profiles', 'viewer', 'The ICC profiles of presses'),
  addPressProfile: spec('POST', '/press-profiles', 'designer', 'Take in the ICC profile of a press', {
    perMinute: 120,
    takesFile: true,
    maxBytes: LIMITS.profileBytes,
  }),
  pressTable: spec(
    'GET',
    '/press-profiles/{id}/table',
    'viewer',
    'How much ink a press takes for colours and how far they come out, over a table of 25³ colours',
    { query: schemas.pressQuery },
  ),
  removePressProfile: spec(
    'DELETE',
    '/press-profiles/{id}',
    'designer',
    'Take a press profile out that no project uses',
  ),
  listPalettes: spec('GET', '/palettes', 'viewer', 'All palettes with their colours'),
  paletteUses: spec('GET', '/palettes/{id}/uses', 'viewer', 'Where the colours of a palette are followed'),
  createPalette: spec('POST', '/palettes', 'designer', 'A new palette', { body: schemas.createPalette }),
  savePalette: spec(
    'PUT',
    '/palettes/{id}',
    'designer',
    'Replace a palette’s name and colours; whatever follows them shows it',
    {
      body: schemas.savePalette,
    },
  ),
  archivePalette: spec('PUT', '/palettes/{id}/archived', 'designer', 'Archive a palette or restore it', {
    body: schemas.archived,
  }),
} satisfies Record<string, RouteSpec>;

import type Joi from 'joi';
import { LIMITS } from '../core/recipe/limits';
import { cutOutSchema } from './pictured-schemas';
import { schemas } from './schemas';

/** One route of the API: what it is for and what it takes. The server's handlers and the OpenAPI document both read this table. */
export type RouteSpec = {
  method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';
  path: string;
  summary: string;
  body?: Joi.ObjectSchema;
  query?: Joi.ObjectSchema;
  /** Most bytes of the body; 20 MB where not said. */
  maxBytes?: number;
  /** The body is a file: its bytes as they are, its name in the header x-file-name (percent-encoded). */
  takesFile?: boolean;
  /** Media type of the answer where it is not JSON. */
  answers?: string;
};

const spec = (
  method: RouteSpec['method'],
  path: string,
  summary: string,
  more: Partial<RouteSpec> = {},
): RouteSpec => ({ method, path, summary, ...more });

export const ROUTES = {
  listPatterns: spec('GET', '/patterns', 'One page of the patterns that match, best match first or sorted', {
    query: schemas.patternQuery,
  }),
  createPattern: spec('POST', '/patterns', 'A new pattern with a draft', {
    body: schemas.createPattern,
    maxBytes: LIMITS.recipeBytes,
  }),
  getPattern: spec('GET', '/patterns/{id}', 'One pattern: recipe, draft, revisions, uses'),
  patchPattern: spec(
    'PATCH',
    '/patterns/{id}',
    'Rename, describe, tag, collect or credit a pattern; no use changes',
    {
      body: schemas.patchPattern,
    },
  ),
  deletePattern: spec('DELETE', '/patterns/{id}', 'Delete an archived, unused pattern for good', {
    body: schemas.deletePattern,
  }),
  libraryFacets: spec('GET', '/library', 'What the library can be narrowed by, with counts'),
  hangStock: spec('POST', '/stock', 'Hang the patterns that ship with Isle, those that are not there yet'),
  editPatterns: spec('POST', '/patterns/edits', 'Tag, collect, credit or archive many patterns at once', {
    body: schemas.editPatterns,
  }),
  putBack: spec('PUT', '/patterns/edits', 'Put back what patterns were before an edit of many', {
    body: schemas.putBack,
  }),
  saveColourways: spec(
    'PUT',
    '/patterns/{id}/colourways',
    'Replace the colourways of a pattern; uses follow',
    {
      body: schemas.saveColourways,
    },
  ),
  holdUses: spec('PUT', '/patterns/{id}/uses', 'Hold uses at the revision they show, or let them follow', {
    body: schemas.holdUses,
  }),
  replaceUses: spec(
    'POST',
    '/patterns/{id}/replaced',
    'Put another pattern in its place, everywhere or in chosen projects',
    { body: schemas.replaceUses },
  ),
  recolour: spec('POST', '/recolours', 'Exchange the colours of one palette for another’s in some layouts', {
    body: schemas.recolour,
  }),
  listChanges: spec(
    'GET',
    '/changes',
    'The latest changes of many fills that can still be undone; with a pattern those about it',
    {
      query: schemas.changesQuery,
    },
  ),
  undoBulk: spec('POST', '/changes/{id}/undone', 'Undo a replacement or recolouring as one step'),
  handOut: spec(
    'POST',
    '/handouts',
    'Patterns as a file: SVG, package, tile, CSS or tokens; without ids the whole library',
    {
      body: schemas.handOut,
      answers: 'application/octet-stream',
    },
  ),
  readFile: spec('POST', '/intake/files', 'Read a file and say what it holds; nothing is taken in yet', {
    takesFile: true,
    maxBytes: LIMITS.libraryBytes,
  }),
  takeIn: spec('POST', '/intake', 'Take in what was read, all in one transaction', { body: schemas.takeIn }),
  paletteFile: spec('GET', '/palettes/{id}/file', 'A palette as design tokens, CSS, CSV or SVG', {
    query: schemas.palettesAs,
    answers: 'application/octet-stream',
  }),
  createCollection: spec('POST', '/collections', 'A new collection', { body: schemas.collectionName }),
  renameCollection: spec('PATCH', '/collections/{id}', 'Rename a collection', {
    body: schemas.collectionName,
  }),
  removeCollection: spec('DELETE', '/collections/{id}', 'Take a collection apart; its patterns stay'),
  events: spec('GET', '/events', 'What changes, as it happens (server-sent events)', {
    answers: 'text/event-stream',
  }),
  archivePattern: spec('PUT', '/patterns/{id}/archived', 'Archive a pattern or restore it', {
    body: schemas.archived,
  }),
  saveDraft: spec('PUT', '/patterns/{id}/draft', 'Keep work in progress', {
    body: schemas.saveDraft,
    maxBytes: LIMITS.recipeBytes,
  }),
  publish: spec(
    'POST',
    '/patterns/{id}/revisions',
    'Publish the draft as the next revision; chosen uses are held',
    {
      body: schemas.publish,
    },
  ),
  publishPreview: spec(
    'GET',
    '/patterns/{id}/uses',
    'Every use with its shape: what publishing would change',
  ),
  keepAsNew: spec('POST', '/patterns/{id}/copies', 'Make another pattern of a recipe, published at once', {
    body: schemas.keepAsNew,
    maxBytes: LIMITS.recipeBytes,
  }),
  dropDraft: spec('DELETE', '/patterns/{id}/draft', 'Forget unfinished work', { body: schemas.base }),
  restoreRevision: spec(
    'POST',
    '/patterns/{id}/revisions/{number}/restored',
    'Publish an older revision again, as the newest',
    { body: schemas.base },
  ),
  getRevision: spec('GET', '/patterns/{id}/revisions/{number}', 'The recipe of one revision'),
  swatch: spec(
    'GET',
    '/patterns/{id}/revisions/{number}/swatch',
    'A sample strip as SVG; the number may be “draft”',
    {
      query: schemas.swatchQuery,
      answers: 'image/svg+xml',
    },
  ),
  codeFile: spec(
    'GET',
    '/patterns/{id}/revisions/{number}/{file}',
    'A pattern for pages and programs: tile.svg, tile.png, fill.svg, pattern.css, pattern.json or tokens.json; the number may be “newest”',
    { query: schemas.codeQuery, answers: '*/*' },
  ),
  importMotif: spec('POST', '/motifs', 'Bring in an SVG file as a motif', {
    body: schemas.motifFile,
    maxBytes: 12_000_000,
  }),
  importPicture: spec('POST', '/motifs/pictures', 'Bring in a PNG, JPEG or WebP picture as a motif', {
    takesFile: true,
    maxBytes: LIMITS.pictureBytes,
  }),
  motifFile: spec('GET', '/motifs/{hash}', 'The file that a motif was made from, or a picture in it', {
    query: schemas.motifQuery,
    answers: 'image/*',
  }),
  cutPicture: spec('POST', '/motifs/{hash}/cut-outs', 'A subject cut out of a picture', {
    body: cutOutSchema,
  }),
  tracePicture: spec('POST', '/motifs/{hash}/tracings', 'A picture as paths of few colours', {
    body: schemas.traceBy,
  }),
  listProjects: spec('GET', '/projects', 'All projects'),
  createProject: spec('POST', '/projects', 'A new project', { body: schemas.createProject }),
  getProject: spec('GET', '/projects/{id}', 'One project: layouts and the patterns it uses'),
  changeProject: spec(
    'PATCH',
    '/projects/{id}',
    'Rename a project, or give it another unit of length or other limits of its proof',
    { body: schemas.patchProject },
  ),
  makeParcel: spec(
    'POST',
    '/projects/{id}/parcels',
    'Hand a project over: all that belongs to it as one zip',
    {
      body: schemas.parcel,
    },
  ),
  lastParcel: spec(
    'GET',
    '/projects/{id}/parcels',
    'The last parcel of a project, and what is another since; null where there is none',
  ),
  projectProof: spec('GET', '/projects/{id}/proof', 'What a proof says of each layout of a project'),
  archiveProject: spec('PUT', '/projects/{id}/archived', 'Archive a project or restore it', {
    body: schemas.archived,
  }),
  createLayout: spec('POST', '/projects/{id}/layouts', 'A new layout in a project', {
    body: schemas.createLayout,
  }),
  getLayout: spec('GET', '/layouts/{id}', 'A layout with its shapes and fills, and the patterns they use'),
  changeLayout: spec(
    'POST',
    '/layouts/{id}/changes',
    'Put, remove and order shapes with their fills, change the page',
    {
      body: schemas.changes,
    },
  ),
  copyLayout: spec('POST', '/layouts/{id}/copies', 'Double a layout with all its shapes and fills', {
    body: schemas.copyLayout,
  }),
  archiveLayout: spec('PUT', '/layouts/{id}/archived', 'Archive a layout or restore it', {
    body: schemas.archived,
  }),
  layoutSvg: spec('GET', '/layouts/{id}/svg', 'The layout as an SVG file, patterns live or expanded', {
    query: schemas.exportSvgQuery,
    answers: 'image/svg+xml',
  }),
  layoutPdf: spec(
    'GET',
    '/layouts/{id}/pdf',
    'The layout as a PDF of one page, its patterns and shapes as drawings',
    {
      query: schemas.exportPdfQuery,
      answers: 'application/pdf',
    },
  ),
  projectPdf: spec('GET', '/projects/{id}/pdf', 'Layouts of a project as one PDF, a page to each', {
    query: schemas.projectPdfQuery,
    answers: 'application/pdf',
  }),
  strikeOffPdf: spec(
    'GET',
    '/strike-offs/{id}/pdf',
    'A sheet of try-outs as a PDF of one page, true to size',
    {
      query: schemas.sheetPdfQuery,
      answers: 'application/pdf',
    },
  ),
  listMockups: spec('GET', '/projects/{id}/mock-ups', 'The mock-ups of a project'),
  createMockup: spec('POST', '/projects/{id}/mock-ups', 'A new mock-up in a project', {
    body: schemas.createMockup,
    maxBytes: LIMITS.mockupBytes,
  }),
  getMockup: spec('GET', '/mock-ups/{id}', 'A mock-up with all that stands in it'),
  saveMockup: spec('PUT', '/mock-ups/{id}', 'Replace a mock-up’s name and all that stands in it', {
    body: schemas.saveMockup,
    maxBytes: LIMITS.mockupBytes,
  }),
  copyMockup: spec('POST', '/mock-ups/{id}/copies', 'Double a mock-up under another name', {
    body: schemas.copyMockup,
  }),
  archiveMockup: spec('PUT', '/mock-ups/{id}/archived', 'Archive a mock-up or restore it', {
    body: schemas.archived,
  }),
  keepStill: spec('POST', '/mock-ups/{id}/still', 'Keep the picture of a mock-up as it is seen', {
    takesFile: true,
    maxBytes: LIMITS.stillBytes,
  }),
  getStill: spec('GET', '/mock-ups/{id}/still', 'The picture of a mock-up as it was seen last', {
    query: schemas.stillQuery,
    answers: 'image/*',
  }),
  listPhotoObjects: spec(
    'GET',
    '/photo-objects',
    'Photographs of blank things that are kept for all projects',
  ),
  keepPhotoObject: spec('POST', '/photo-objects', 'Keep a photograph with its surfaces for all projects', {
    body: schemas.createMockup,
    maxBytes: LIMITS.mockupBytes,
  }),
  removePhotoObject: spec(
    'DELETE',
    '/photo-objects/{id}',
    'Forget a kept photograph; mock-ups made of it stay',
  ),
  stockPhotoObjects: spec('POST', '/photo-objects/stock', 'Keep the blank photographs that ship with Isle'),
  listSheets: spec('GET', '/projects/{id}/client-sheets', 'The client sheets of a project'),
  createSheet: spec('POST', '/projects/{id}/client-sheets', 'A new client sheet in a project', {
    body: schemas.createSheet,
  }),
  getSheet: spec('GET', '/client-sheets/{id}', 'A client sheet, its links, and what clients left there'),
  saveSheet: spec('PUT', '/client-sheets/{id}', 'Replace a client sheet’s name and what is on it', {
    body: schemas.saveSheet,
  }),
  archiveSheet: spec('PUT', '/client-sheets/{id}/archived', 'Archive a client sheet or restore it', {
    body: schemas.archived,
  }),
  keepSheetPicture: spec(
    'POST',
    '/client-sheets/{id}/pictures/{item}',
    'Keep the picture of something on a sheet, for clients',
    { takesFile: true, maxBytes: LIMITS.stillBytes },
  ),
  showSheet: spec(
    'PUT',
    '/client-sheets/{id}/shown',
    'What clients see at the links of a sheet from now on',
    {
      body: schemas.showSheet,
    },
  ),
  makeLink: spec(
    'POST',
    '/client-sheets/{id}/links',
    'A link that shows a sheet to whoever has it, for some days',
    {
      body: schemas.makeLink,
    },
  ),
  endLink: spec('DELETE', '/client-sheets/{id}/links/{token}', 'End a link at once'),
  readAnswers: spec('PUT', '/client-sheets/{id}/read', 'Note that what clients left was read'),
  getShared: spec('GET', '/shared/{token}', 'What a link shows'),
  sharedPicture: spec('GET', '/shared/{token}/pictures/{item}', 'A picture of what a link shows', {
    answers: 'image/*',
  }),
  answerShared: spec('POST', '/shared/{token}/answers', 'Leave a choice or words about something at a link', {
    body: schemas.answer,
    maxBytes: 20_000,
  }),
  listStrikeOffs: spec('GET', '/projects/{id}/strike-offs', 'The strike-offs that a project keeps'),
  keepStrikeOff: spec('POST', '/projects/{id}/strike-offs', 'Keep a sheet of try-outs with a project', {
    body: schemas.keepStrikeOff,
  }),
  saveStrikeOff: spec('PUT', '/strike-offs/{id}', 'Give a kept sheet another name or other try-outs', {
    body: schemas.saveStrikeOff,
  }),
  removeStrikeOff: spec('DELETE', '/strike-offs/{id}', 'Take a kept sheet away'),
  exportStrikeOff: spec('POST', '/strike-offs/{id}/exports', 'Start drawing a sheet as a PNG, true to size', {
    body: schemas.exportPng,
  }),
  startExport: spec('POST', '/layouts/{id}/exports', 'Start drawing the layout as a PNG', {
    body: schemas.exportPng,
  }),
  getExport: spec('GET', '/exports/{id}', 'How far an export is'),
  cancelExport: spec('DELETE', '/exports/{id}', 'Stop an export'),
  exportFile: spec('GET', '/exports/{id}/file', 'The finished PNG', { answers: 'image/png' }),
  listPalettes: spec('GET', '/palettes', 'All palettes with their colours'),
  paletteUses: spec('GET', '/palettes/{id}/uses', 'Where the colours of a palette are followed'),
  createPalette: spec('POST', '/palettes', 'A new palette', { body: schemas.createPalette }),
  savePalette: spec(
    'PUT',
    '/palettes/{id}',
    'Replace a palette’s name and colours; whatever follows them shows it',
    {
      body: schemas.savePalette,
    },
  ),
  archivePalette: spec('PUT', '/palettes/{id}/archived', 'Archive a palette or restore it', {
    body: schemas.archived,
  }),
} satisfies Record<string, RouteSpec>;

export type RouteName = keyof typeof ROUTES;

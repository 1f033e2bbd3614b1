import type { Recipe } from '../../core/recipe/recipe';
import type { Kept, Made, PatternsEdited, Published, Versioned } from '../answers';
import type {
  BulkChange,
  BulkDone,
  FoundPatterns,
  LibraryFacets,
  PatternDetail,
  PatternKeeping,
  PublishPreview,
} from '../data';
import type {
  Archiving,
  Based,
  CodeQuery,
  ColourwaysSave,
  DraftSave,
  HandingOut,
  HeldUses,
  KeptAsNew,
  Named,
  NewPattern,
  PatternPatch,
  PatternQuery,
  PatternsEdit,
  Publishing,
  Recolouring,
  Replacing,
  SwatchQuery,
  TakingIn,
} from '../given';
import type { TakenFile, TakingReport } from '../taking';
import { LIMITS } from '../../core/recipe/limits';
import { schemas } from '../schemas';
import { gives, spec, takes, type RouteSpec } from './spec';

/** The library: patterns, what is done with them, and their files. */
export const LIBRARY_ROUTES = {
  listPatterns: spec(
    'GET',
    '/patterns',
    'viewer',
    'One page of the patterns that match, best match first or sorted',
    {
      gives: gives<FoundPatterns>(),
      query: takes<
        PatternQuery,
        'search' | 'archived' | 'drafts' | 'unpublished' | 'sort' | 'backwards' | 'limit' | 'offset'
      >(schemas.patternQuery),
    },
  ),
  createPattern: spec('POST', '/patterns', 'contributor', 'A new pattern with a draft', {
    gives: gives<Made>(),
    body: takes<NewPattern>(schemas.createPattern),
    maxBytes: LIMITS.recipeBytes,
  }),
  getPattern: spec('GET', '/patterns/{id}', 'viewer', 'One pattern: recipe, draft, revisions, uses', {
    gives: gives<PatternDetail>(),
  }),
  patchPattern: spec(
    'PATCH',
    '/patterns/{id}',
    'designer',
    'Rename, describe, tag, collect or credit a pattern; no use changes',
    { gives: gives<Versioned>(), body: takes<Based & PatternPatch>(schemas.patchPattern) },
  ),
  deletePattern: spec('DELETE', '/patterns/{id}', 'designer', 'Delete an archived, unused pattern for good', {
    gives: gives<Kept>(),
    body: takes<Named>(schemas.deletePattern),
  }),
  libraryFacets: spec('GET', '/library', 'viewer', 'What the library can be narrowed by, with counts', {
    gives: gives<LibraryFacets>(),
  }),
  hangStock: spec(
    'POST',
    '/stock',
    'designer',
    'Hang the patterns that ship with Isle, those that are not there yet',
    { gives: gives<{ patterns: number }>() },
  ),
  editPatterns: spec(
    'POST',
    '/patterns/edits',
    'designer',
    'Tag, collect, credit or archive many patterns at once',
    { gives: gives<PatternsEdited>(), body: takes<PatternsEdit>(schemas.editPatterns) },
  ),
  putBack: spec('PUT', '/patterns/edits', 'designer', 'Put back what patterns were before an edit of many', {
    gives: gives<PatternsEdited>(),
    body: takes<{ patterns: PatternKeeping[] }>(schemas.putBack),
  }),
  saveColourways: spec(
    'PUT',
    '/patterns/{id}/colourways',
    'designer',
    'Replace the colourways of a pattern; uses follow',
    { gives: gives<Versioned>(), body: takes<ColourwaysSave>(schemas.saveColourways) },
  ),
  holdUses: spec(
    'PUT',
    '/patterns/{id}/uses',
    'designer',
    'Hold uses at the revision they show, or let them follow',
    { gives: gives<{ fills: number }>(), body: takes<HeldUses>(schemas.holdUses) },
  ),
  replaceUses: spec(
    'POST',
    '/patterns/{id}/replaced',
    'designer',
    'Put another pattern in its place, everywhere or in chosen projects',
    { gives: gives<BulkDone>(), body: takes<Replacing>(schemas.replaceUses) },
  ),
  recolour: spec(
    'POST',
    '/recolours',
    'designer',
    'Exchange the colours of one palette for another’s in some layouts',
    { gives: gives<BulkDone>(), body: takes<Recolouring>(schemas.recolour) },
  ),
  listChanges: spec(
    'GET',
    '/changes',
    'viewer',
    'The latest changes of many fills that can still be undone; with a pattern those about it',
    { gives: gives<BulkChange[]>(), query: takes<{ pattern?: string }>(schemas.changesQuery) },
  ),
  undoBulk: spec(
    'POST',
    '/changes/{id}/undone',
    'designer',
    'Undo a replacement or recolouring as one step',
    { gives: gives<{ fills: number; left: number }>() },
  ),
  handOut: spec(
    'POST',
    '/handouts',
    'contributor',
    'Patterns as a file: SVG, package, tile, CSS or tokens; without ids the whole library',
    {
      perMinute: 240,
      body: takes<HandingOut, 'scale'>(schemas.handOut),
      answers: 'application/octet-stream',
    },
  ),
  readFile: spec(
    'POST',
    '/intake/files',
    'designer',
    'Read a file and say what it holds; nothing is taken in yet',
    { gives: gives<TakenFile>(), perMinute: 120, takesFile: true, maxBytes: LIMITS.libraryBytes },
  ),
  takeIn: spec('POST', '/intake', 'designer', 'Take in what was read, all in one transaction', {
    gives: gives<TakingReport>(),
    body: takes<TakingIn>(schemas.takeIn),
  }),
  createCollection: spec('POST', '/collections', 'designer', 'A new collection', {
    gives: gives<Kept>(),
    body: takes<Named>(schemas.collectionName),
  }),
  renameCollection: spec('PATCH', '/collections/{id}', 'designer', 'Rename a collection', {
    gives: gives<Kept>(),
    body: takes<Named>(schemas.collectionName),
  }),
  removeCollection: spec(
    'DELETE',
    '/collections/{id}',
    'designer',
    'Take a collection apart; its patterns stay',
    { gives: gives<{ id: string; patterns: string[] }>() },
  ),
  archivePattern: spec('PUT', '/patterns/{id}/archived', 'designer', 'Archive a pattern or restore it', {
    gives: gives<Versioned>(),
    body: takes<Archiving>(schemas.archived),
  }),
  saveDraft: spec('PUT', '/patterns/{id}/draft', 'contributor', 'Keep work in progress', {
    gives: gives<Versioned>(),
    body: takes<DraftSave>(schemas.saveDraft),
    maxBytes: LIMITS.recipeBytes,
  }),
  publish: spec(
    'POST',
    '/patterns/{id}/revisions',
    'designer',
    'Publish the draft as the next revision; chosen uses are held',
    { gives: gives<Published>(), body: takes<Publishing, 'hold'>(schemas.publish) },
  ),
  publishPreview: spec(
    'GET',
    '/patterns/{id}/uses',
    'viewer',
    'Every use with its shape: what publishing would change',
    { gives: gives<PublishPreview>() },
  ),
  keepAsNew: spec(
    'POST',
    '/patterns/{id}/copies',
    'designer',
    'Make another pattern of a recipe, published at once',
    {
      gives: gives<Made>(),
      body: takes<KeptAsNew, 'takesDraft'>(schemas.keepAsNew),
      maxBytes: LIMITS.recipeBytes,
    },
  ),
  dropDraft: spec('DELETE', '/patterns/{id}/draft', 'contributor', 'Forget unfinished work', {
    gives: gives<Versioned>(),
    body: takes<Based>(schemas.base),
  }),
  restoreRevision: spec(
    'POST',
    '/patterns/{id}/revisions/{number}/restored',
    'designer',
    'Publish an older revision again, as the newest',
    { gives: gives<{ version: number; revision: number }>(), body: takes<Based>(schemas.base) },
  ),
  getRevision: spec('GET', '/patterns/{id}/revisions/{number}', 'viewer', 'The recipe of one revision', {
    gives: gives<Recipe>(),
  }),
  swatch: spec(
    'GET',
    '/patterns/{id}/revisions/{number}/swatch',
    'viewer',
    'A sample strip as SVG; the number may be “draft”',
    {
      query: takes<SwatchQuery, 'width' | 'height' | 'scale' | 'as' | 'pixels'>(schemas.swatchQuery),
      answers: 'image/svg+xml',
    },
  ),
  codeFile: spec(
    'GET',
    '/patterns/{id}/revisions/{number}/{file}',
    'viewer',
    'A pattern for pages and programs: tile.svg, tile.png, fill.svg, pattern.css, pattern.json or tokens.json; the number may be “newest”',
    {
      query: takes<CodeQuery, 'scale' | 'rotation' | 'x' | 'y'>(schemas.codeQuery),
      answers: '*/*',
      openable: true,
    },
  ),
} satisfies Record<string, RouteSpec>;

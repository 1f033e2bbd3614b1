import type { Kept, Made, Versioned } from '../answers';
import type {
  ExportJob,
  LastParcel,
  LayoutInUse,
  LayoutNotes,
  LayoutSince,
  LayoutState,
  ParcelWish,
  Plates,
  ProjectDetail,
  ProjectSummary,
  StrikeOff,
} from '../data';
import type {
  Archiving,
  Based,
  LayoutSave,
  Named,
  FilledLayout,
  NewProject,
  NewStrikeOff,
  PdfQuery,
  PngWish,
  ProjectPatch,
  StrikeOffSave,
  SvgQuery,
} from '../given';
import { schemas } from '../schemas';
import { peopleSchemas } from '../people-schemas';
import { gives, spec, takes, type RouteSpec } from './spec';

/** Projects, their layouts and strike-offs, and what is handed over. */
export const PROJECT_ROUTES = {
  events: spec('GET', '/events', 'viewer', 'What changes, as it happens (server-sent events)', {
    answers: 'text/event-stream',
    query: takes<{ after?: number }>(peopleSchemas.eventsQuery),
  }),
  listProjects: spec('GET', '/projects', 'viewer', 'All projects', { gives: gives<ProjectSummary[]>() }),
  createProject: spec('POST', '/projects', 'designer', 'A new project', {
    gives: gives<Made>(),
    body: takes<NewProject>(schemas.createProject),
  }),
  getProject: spec('GET', '/projects/{id}', 'viewer', 'One project: layouts and the patterns it uses', {
    gives: gives<ProjectDetail>(),
  }),
  changeProject: spec(
    'PATCH',
    '/projects/{id}',
    'designer',
    'Rename a project, or give it another unit of length or other limits of its proof',
    { gives: gives<Versioned>(), body: takes<Based & ProjectPatch>(schemas.patchProject) },
  ),
  makeParcel: spec(
    'POST',
    '/projects/{id}/parcels',
    'contributor',
    'Hand a project over: all that belongs to it as one zip',
    { gives: gives<ExportJob>(), perMinute: 60, body: takes<ParcelWish>(schemas.parcel) },
  ),
  lastParcel: spec(
    'GET',
    '/projects/{id}/parcels',
    'viewer',
    'The last parcel of a project, and what is another since; null where there is none',
    { gives: gives<LastParcel | null>() },
  ),
  projectProof: spec(
    'GET',
    '/projects/{id}/proof',
    'viewer',
    'What a proof says of each layout of a project',
    { gives: gives<{ layouts: LayoutNotes[] }>() },
  ),
  archiveProject: spec('PUT', '/projects/{id}/archived', 'designer', 'Archive a project or restore it', {
    gives: gives<Kept>(),
    body: takes<Archiving>(schemas.archived),
  }),
  createLayout: spec('POST', '/projects/{id}/layouts', 'contributor', 'A new layout in a project', {
    gives: gives<Made>(),
    body: takes<FilledLayout>(schemas.createLayout),
  }),
  getLayout: spec(
    'GET',
    '/layouts/{id}',
    'viewer',
    'A layout with its shapes and fills, and the patterns they use',
    { gives: gives<LayoutInUse>() },
  ),
  changeLayout: spec(
    'POST',
    '/layouts/{id}/changes',
    'contributor',
    'Put, remove and order shapes with their fills, change the page',
    { gives: gives<Versioned>(), body: takes<LayoutSave>(schemas.changes) },
  ),
  changesSince: spec(
    'GET',
    '/layouts/{id}/changes',
    'viewer',
    'What was changed in a layout since a version, save by save; null where it is to be read whole',
    { gives: gives<LayoutSince>(), query: takes<{ since: number }>(schemas.sinceQuery) },
  ),
  listStates: spec(
    'GET',
    '/layouts/{id}/states',
    'viewer',
    'The states of a layout that one can go back to',
    { gives: gives<LayoutState[]>() },
  ),
  getState: spec(
    'GET',
    '/layouts/{id}/states/{version}',
    'viewer',
    'A layout as it was at a state, with all that it shows; 0 is as it began',
    { gives: gives<LayoutInUse>() },
  ),
  nameState: spec(
    'PUT',
    '/layouts/{id}/states/{version}',
    'contributor',
    'Give a state a name, which keeps it for good, or take it away',
    { gives: gives<Versioned>(), body: takes<{ name: string | null }>(schemas.stateName) },
  ),
  copyLayout: spec(
    'POST',
    '/layouts/{id}/copies',
    'contributor',
    'Double a layout with all its shapes and fills',
    { gives: gives<Kept>(), body: takes<Named>(schemas.copyLayout) },
  ),
  archiveLayout: spec('PUT', '/layouts/{id}/archived', 'contributor', 'Archive a layout or restore it', {
    gives: gives<Kept>(),
    body: takes<Archiving>(schemas.archived),
  }),
  layoutSvg: spec(
    'GET',
    '/layouts/{id}/svg',
    'viewer',
    'The layout as an SVG file, patterns live or expanded',
    {
      query: takes<SvgQuery, 'patterns' | 'bleed'>(schemas.exportSvgQuery),
      answers: 'image/svg+xml',
    },
  ),
  layoutPlates: spec(
    'GET',
    '/layouts/{id}/plates',
    'viewer',
    'The plates that the layout is printed from, as pictures, and how much each covers',
    {
      gives: gives<Plates & { version: number }>(),
      query: takes<{ side?: number }, 'side'>(schemas.platesQuery),
    },
  ),
  layoutPdf: spec(
    'GET',
    '/layouts/{id}/pdf',
    'viewer',
    'The layout as a PDF of one page, its patterns and shapes as drawings',
    {
      perMinute: 600,
      query: takes<PdfQuery, keyof PdfQuery>(schemas.exportPdfQuery),
      answers: 'application/pdf',
    },
  ),
  projectPdf: spec('GET', '/projects/{id}/pdf', 'viewer', 'Layouts of a project as one PDF, a page to each', {
    perMinute: 240,
    query: takes<PdfQuery & { layouts: string }, keyof PdfQuery>(schemas.projectPdfQuery),
    answers: 'application/pdf',
  }),
  strikeOffPdf: spec(
    'GET',
    '/strike-offs/{id}/pdf',
    'viewer',
    'A sheet of try-outs as a PDF of one page, true to size',
    {
      query: takes<{ ppi?: number }, 'ppi'>(schemas.sheetPdfQuery),
      answers: 'application/pdf',
    },
  ),
  listStrikeOffs: spec(
    'GET',
    '/projects/{id}/strike-offs',
    'viewer',
    'The strike-offs that a project keeps',
    { gives: gives<StrikeOff[]>() },
  ),
  keepStrikeOff: spec(
    'POST',
    '/projects/{id}/strike-offs',
    'contributor',
    'Keep a sheet of try-outs with a project',
    { gives: gives<StrikeOff>(), body: takes<NewStrikeOff>(schemas.keepStrikeOff) },
  ),
  saveStrikeOff: spec(
    'PUT',
    '/strike-offs/{id}',
    'contributor',
    'Give a kept sheet another name or other try-outs',
    { gives: gives<StrikeOff>(), body: takes<StrikeOffSave>(schemas.saveStrikeOff) },
  ),
  removeStrikeOff: spec('DELETE', '/strike-offs/{id}', 'contributor', 'Take a kept sheet away', {
    gives: gives<Kept>(),
  }),
  exportStrikeOff: spec(
    'POST',
    '/strike-offs/{id}/exports',
    'contributor',
    'Start drawing a sheet as a PNG, true to size',
    { gives: gives<ExportJob>(), perMinute: 600, body: takes<PngWish, 'bleed' | 'as'>(schemas.exportPng) },
  ),
  startExport: spec('POST', '/layouts/{id}/exports', 'contributor', 'Start drawing the layout as a PNG', {
    gives: gives<ExportJob>(),
    perMinute: 600,
    body: takes<PngWish, 'bleed' | 'as'>(schemas.exportPng),
  }),
  getExport: spec('GET', '/exports/{id}', 'viewer', 'How far an export is', { gives: gives<ExportJob>() }),
  cancelExport: spec('DELETE', '/exports/{id}', 'contributor', 'Stop an export', {
    gives: gives<ExportJob>(),
  }),
  exportFile: spec('GET', '/exports/{id}/file', 'viewer', 'The finished PNG', { answers: 'image/png' }),
} satisfies Record<string, RouteSpec>;

import { readFileSync, writeFileSync } from 'node:fs';
import { checkBody } from '../../contract/bodies';
import type { LayoutData } from '../../contract/data';
import { done, fail, type Outcome } from '../../contract/failure';
import type { Answer, Ask, WorkName } from '../../contract/work';
import { withBleed } from '../../core/draw/reframe';
import { LIMITS } from '../../core/recipe/limits';
import { getLayout } from '../repo/layouts';
import { makeCopy } from '../db/copies';
import { spaceFailure } from '../render/space';
import { readFont } from '../render/font-file';
import { readProfile } from '../render/press';
import { setLine } from './setting-lines';
import { getStrikeOff } from '../repo/strike-offs';
import { unusedAssets } from '../repo/tidying';
import { writePng } from './draw-png';
import { handOut } from './handing-out';
import { sceneOf, sheetScene } from './layout-scene';
import { layoutsPdf, strikeOffPdf } from './layout-pdf';
import { layoutFile } from './layout-svg';
import { writeParcel } from './parcel/parcel';
import { codeFile } from './in-code';
import { platesFile, platesView } from './press/layout-plates';
import { pressTable } from './press/table';
import { proofProject } from './proofing';
import { lookOver } from './look-over';
import { makePicture } from './making';
import { readMotif, readPictureFile } from './reading-motifs';
import { cutPicture } from './cutting';
import { smallerPicture } from './smaller';
import { tracePicture } from './tracing';
import { readFileIn } from './taking-in';
import { drawSwatch } from './swatch';
import { libraryAt, threadedToolsAt, toolsAt } from './tools';

type Task<N extends WorkName> = (
  ask: Ask<N>,
  progress: (share: number) => void,
) => Promise<Answer<N>> | Answer<N>;

/** Everything that a child process does, by name. */
export const TASKS: { [N in WorkName]: Task<N> } = {
  swatch: (ask) => drawSwatch(toolsAt(ask.store), ask),
  recolour: async ({ store, asset, look }) => {
    const bytes = await toolsAt(store).pictures.recoloured(asset, look);
    return bytes ? done({ bytes }) : NO_PICTURE;
  },
  smaller: smallerPicture,
  cutOut: cutPicture,
  trace: tracePicture,
  makePicture: ({ store, hash }) => makePicture(libraryAt(store), hash),
  layoutSvg: async ({ store, layout: id, as, bleed, path }) => {
    const tools = toolsAt(store);
    const layout = getLayout(tools.db, id);
    if (!layout.ok) return layout;
    const svg = layoutFile(tools.db, layout.value, { as, bleed: bleed ? layout.value.bleed : 0 });
    if (!svg.ok) return svg;
    writeFileSync(path, await tools.pictures.embed(svg.value));
    return done({ name: layout.value.name });
  },
  layoutsPdf: async ({ store, layouts: ids, project, title, path, ...wish }) => {
    const tools = toolsAt(store);
    const most = LIMITS.pdfPages;
    if (ids.length > most)
      return fail('too_large', `These are ${ids.length} pages; one PDF has at most ${most}.`, 'layouts');
    const layouts: LayoutData[] = [];
    for (const id of ids) {
      const layout = getLayout(tools.db, id);
      if (!layout.ok) return layout;
      if (project !== null && layout.value.projectId !== project)
        return fail('not_found', `“${layout.value.name}” is not in this project.`, 'layouts');
      layouts.push(layout.value);
    }
    const name = title ?? layouts[0]?.name ?? '';
    return keptAt(path, name, await layoutsPdf(tools, layouts, name, wish));
  },
  codeFile: ({ store, ...ask }) => codeFile(toolsAt(store), ask),
  parcel: ({ store, ...ask }, progress) => writeParcel(threadedToolsAt(store), ask, progress),
  platesView: ({ store, ...ask }) => platesView(toolsAt(store), ask),
  platesFile: ({ store, ...ask }, progress) => platesFile(threadedToolsAt(store), ask, progress),
  pressTable: ({ store, ...by }) => pressTable(libraryAt(store), by),
  readFont: ({ path, fileName }) => readFont(readFileSync(path), fileName),
  setLine,
  readProfile: ({ path, fileName }) => readProfile(readFileSync(path), fileName),
  proof: ({ store, project }) => proofProject(libraryAt(store), project),
  sheetPdf: async ({ store, sheet: id, ppi, path }) => {
    const tools = toolsAt(store);
    const sheet = getStrikeOff(tools.db, id);
    if (!sheet.ok) return sheet;
    return keptAt(path, sheet.value.name, await strikeOffPdf(tools, sheet.value, ppi));
  },
  layoutPng: async ({ store, layout: id, ppi, bleed, path }, progress) => {
    const tools = threadedToolsAt(store);
    const layout = getLayout(tools.db, id);
    if (!layout.ok) return layout;
    const scene = withBleed(sceneOf(tools.db, layout.value), bleed ? layout.value.bleed : 0);
    return writePng(tools, scene, { ppi, path, progress });
  },
  sheetPng: async ({ store, sheet: id, ppi, path }, progress) => {
    const tools = threadedToolsAt(store);
    const sheet = getStrikeOff(tools.db, id);
    if (!sheet.ok) return sheet;
    return writePng(tools, sheetScene(tools.db, sheet.value), { ppi, path, progress });
  },
  handOut: ({ store, path, ...wanted }) => handOut(toolsAt(store), wanted, path),
  readMotif,
  readPicture: readPictureFile,
  readFile: ({ store, ...file }) => readFileIn(toolsAt(store).db, file),
  backup: async ({ store, folder, at }) => {
    try {
      return done(await makeCopy(store, folder, new Date(at)));
    } catch (error) {
      const full = spaceFailure(error, 'The backup');
      return full ?? fail('unsupported', error instanceof Error ? error.message : String(error));
    }
  },
  lookOver: ({ store }) => {
    const db = libraryAt(store);
    return done({ problems: lookOver(db).problems, unused: unusedAssets(db) });
  },
  checkBody: ({ route, path }) => checkBody(route, readFileSync(path)),
};

/** Writes a file where one was made, and answers its name. */
function keptAt(path: string, name: string, made: Outcome<Uint8Array>): Outcome<{ name: string }> {
  if (!made.ok) return made;
  writeFileSync(path, made.value);
  return done({ name });
}

const NO_PICTURE = {
  ok: false as const,
  failure: { code: 'not_found' as const, message: 'There is no such picture.', path: 'hash' },
};

import { existsSync, mkdirSync, mkdtempSync, renameSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { basename, dirname, join, resolve } from 'node:path';
import type { ParcelWish } from '../../contract/data';
import type { Outcome } from '../../contract/failure';
import type { ClashChoice } from '../../contract/taking';
import type { KeptPalette, KeptPattern } from '../../core/recipe/library';
import { openDatabase, type Db } from '../db/open';
import { keepParcel } from '../repo/parcels';
import { layoutsOf, listProjects } from '../repo/projects';
import { readyAssets, readyItem } from '../repo/ready';
import { markSound } from '../repo/stored';
import { takeIn } from '../repo/take-in';
import { handOut } from './handing-out';
import { writeParcel } from './parcel/parcel';
import { readFileIn } from './taking-in';
import { threadedToolsAt } from './tools';

type Say = (line: string) => void;

export const COMMANDS = [
  'npm run isle -- export project NAME TARGET.zip   all that belongs to a project, as “Hand over” makes it',
  'npm run isle -- export library TARGET.zip|.svg   all patterns and palettes, to be taken in elsewhere',
  'npm run isle -- import FILE …                    takes patterns and palettes of files in; what is there already stays',
  '    --data FOLDER   the data folder (else ISLE_DATA, else “data”)',
  '    --ppi NUMBER    of PNG pages and of pictures in PDF (300)',
  '    --both          import: keep both where a name is taken by another pattern',
];

/** `export …` and `import …`: what the interface hands over and takes in, without a browser. Answers the exit code. */
export async function byCommand(words: readonly string[], say: Say): Promise<number> {
  const asked = optionsOf(words);
  if (typeof asked === 'string') {
    say(asked);
    return 2;
  }
  const { rest, folder, ppi, both } = asked;
  const [task, ...more] = rest;
  const file = join(folder, 'isle.db');
  if (!existsSync(file)) {
    say(`There is no database in ${folder}.`);
    return 2;
  }
  const [what, name, target] = more;
  if (task === 'import' && more.length > 0) return importFiles(file, more, both, say);
  if (task === 'export' && what === 'project' && name !== undefined && target !== undefined)
    return exportProject(file, { name, target: resolve(target), ppi }, say);
  if (task === 'export' && what === 'library' && name !== undefined)
    return exportLibrary(file, resolve(name), say);
  for (const line of COMMANDS) say(line);
  return 2;
}

function optionsOf(
  words: readonly string[],
): { rest: string[]; folder: string; ppi: number; both: boolean } | string {
  const rest: string[] = [];
  let folder = process.env.ISLE_DATA || 'data';
  let [ppi, both] = [300, false];
  for (let at = 0; at < words.length; at += 1) {
    const word = words[at]!;
    if (word === '--both') both = true;
    else if (word === '--data' || word === '--ppi') {
      const value = words[(at += 1)];
      if (value === undefined) return `${word} needs a value.`;
      if (word === '--data') folder = value;
      else ppi = Number(value);
    } else if (word.startsWith('--')) return `There is no option ${word}.`;
    else rest.push(word);
  }
  if (!(ppi >= 1 && ppi <= 2400)) return '--ppi must be a number from 1 to 2400.';
  return { rest, folder: resolve(folder), ppi, both };
}

/** Writes a file beside its target and puts it there once it is whole. */
async function whole<T>(
  target: string,
  say: Say,
  write: (path: string) => Promise<Outcome<T>>,
): Promise<T | null> {
  if (!existsSync(dirname(target))) {
    say(`There is no folder ${dirname(target)}.`);
    return null;
  }
  const part = `${target}.part`;
  try {
    const written = await write(part);
    if (!written.ok) {
      say(written.failure.message);
      return null;
    }
    renameSync(part, target);
    return written.value;
  } finally {
    for (const left of [part, `${part}.part`]) rmSync(left, { force: true });
  }
}

async function exportProject(
  file: string,
  { name, target, ppi }: { name: string; target: string; ppi: number },
  say: Say,
): Promise<number> {
  const db = openDatabase(file);
  const all = listProjects(db);
  const project = all.find((one) => one.id === name) ?? all.find((one) => one.name === name);
  if (!project) {
    say(
      `There is no project “${name}”; there are ${all.map((one) => `“${one.name}”`).join(', ') || 'none'}.`,
    );
    return 1;
  }
  const wish: ParcelWish = {
    ...{ layouts: layoutsOf(db, project.id).map(({ id }) => id), ppi },
    ...{ pdf: true, png: true, svg: true, bleed: true, marks: false, register: false },
    ...{ patterns: true, palettes: true, spec: true },
  };
  let told = -1;
  const made = await whole(target, say, (path) =>
    writeParcel(threadedToolsAt(file), { project: project.id, wish, path }, (share) => {
      const tenth = Math.floor(share * 10);
      if (tenth > told) say(`${(told = tenth) * 10} %`);
    }),
  );
  if (!made) return 1;
  keepParcel(db, project.id, wish, made);
  say(`${target}: ${made.files.length + 1} files, ${(statSync(target).size / 1e6).toFixed(1)} MB.`);
  return 0;
}

async function exportLibrary(file: string, target: string, say: Say): Promise<number> {
  const as = /\.svg$/i.test(target) ? 'svg' : 'zip';
  const made = await whole(target, say, (path) => handOut(threadedToolsAt(file), { as, scale: 1 }, path));
  if (!made) return 1;
  for (const name of made.leftOut) say(`Left out, as it cannot be read: “${name}”.`);
  say(`${target}: ${(statSync(target).size / 1e6).toFixed(1)} MB.`);
  return 0;
}

async function importFiles(file: string, paths: readonly string[], both: boolean, say: Say): Promise<number> {
  const db = openDatabase(file);
  const folder = mkdtempSync(join(tmpdir(), 'isle-import-'));
  let code = 0;
  try {
    for (const [at, path] of paths.entries()) {
      const place = join(folder, String(at));
      mkdirSync(place);
      if (!(await importFile(db, resolve(path), place, both, say))) code = 1;
    }
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
  return code;
}

/** Takes one file in, all of it or nothing. */
async function importFile(db: Db, path: string, folder: string, both: boolean, say: Say): Promise<boolean> {
  const fileName = basename(path);
  if (!existsSync(path)) {
    say(`There is no file ${path}.`);
    return false;
  }
  const read = await readFileIn(db, { path, fileName, folder });
  if (!read.ok) {
    say(`${fileName}: ${read.failure.message}`);
    return false;
  }
  for (const note of read.value.notes) say(`${fileName}: ${note}`);
  const items = read.value.items.map((item) => ({
    ...item,
    choice: (item.clash && !(both && !item.clash.same) ? 'skip' : 'both') as ClashChoice,
  }));
  const patterns = items
    .filter(({ kind }) => kind === 'pattern')
    .map(({ key, kind, choice }) => ({ kept: readyItem<KeptPattern>(folder, key, kind), choice }));
  const palettes = items
    .filter(({ kind }) => kind === 'palette')
    .map(({ key, kind, choice }) => ({ kept: readyItem<KeptPalette>(folder, key, kind), choice }));
  for (const { kept } of patterns) markSound(kept.recipe);
  const wanted = patterns.filter(({ choice }) => choice !== 'skip').map(({ kept }) => kept);
  const taken = takeIn(db, { patterns, palettes, assets: readyAssets(folder, wanted) });
  if (!taken.ok) {
    say(`${fileName}: ${taken.failure.message}`);
    return false;
  }
  const { added, skipped } = taken.value;
  say(`${fileName}: ${added.length} taken in, ${skipped} there already.`);
  return true;
}

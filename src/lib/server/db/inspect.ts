import {
  accessSync,
  closeSync,
  constants,
  existsSync,
  mkdirSync,
  openSync,
  readFileSync,
  readSync,
  statSync,
  statfsSync,
} from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { migrationsFolder } from './open';

/** A start that cannot be: one sentence that says why and what to do. No stack belongs to it. */
export class CannotStart extends Error {}

/** Less free space than this is too little to work with. */
const LEAST_FREE = 50_000_000;

/** Makes the data folder and says where it cannot be written to. */
export function needFolder(folder: string): void {
  try {
    mkdirSync(folder, { recursive: true });
    accessSync(folder, constants.R_OK | constants.W_OK | constants.X_OK);
  } catch (error) {
    throw new CannotStart(
      `The data folder ${folder} cannot be written to (${codeOf(error)}). Give Isle the right to write there, or name another folder with ISLE_DATA.`,
    );
  }
}

/** A hold on a data folder, let go with the process at the latest. */
export type FolderLock = { release: () => void };

/** Takes a data folder for this process alone; a second one on the same folder is told so. */
export function lockFolder(folder: string): FolderLock {
  const client = new Database(join(folder, 'isle.lock'), { timeout: 0 });
  try {
    // The system lets the lock go when the process ends, however it ends.
    client.pragma('journal_mode = MEMORY');
    client.exec('BEGIN EXCLUSIVE');
  } catch (error) {
    client.close();
    if (codeOf(error) === 'SQLITE_BUSY')
      throw new CannotStart(
        `Another Isle is running on ${folder}. Stop it first, or name another folder with ISLE_DATA.`,
      );
    throw error;
  }
  return { release: () => void (client.open && client.close()) };
}

/** What a database file is like before it is opened for writing. */
export type Inspected =
  | { state: 'new' }
  | { state: 'present' }
  /** Written by an older Isle: it is to be migrated. `tag` names its newest migration. */
  | { state: 'older'; tag: string };

/** Looks at a database without changing it; throws a sentence for one that must not be opened. */
export function inspectDatabase(file: string): Inspected {
  if (!existsSync(file) || statSync(file).size === 0) return { state: 'new' };
  needSqlite(file);
  try {
    accessSync(file, constants.R_OK | constants.W_OK);
  } catch {
    throw new CannotStart(
      `The database ${file} may only be read, not written. Give Isle the right to write it, or name another folder with ISLE_DATA.`,
    );
  }
  const client = new Database(file, { fileMustExist: true });
  try {
    client.pragma('busy_timeout = 2000');
    const found = client.pragma('quick_check(3)', { simple: false }) as { quick_check: string }[];
    const problems = found.map((row) => row.quick_check).filter((text) => text !== 'ok');
    if (problems.length > 0) throw damaged(file, problems[0] ?? '');
    return schemaState(client, file);
  } catch (error) {
    if (error instanceof CannotStart) throw error;
    const code = codeOf(error);
    if (code.startsWith('SQLITE_CORRUPT') || code === 'SQLITE_NOTADB')
      throw damaged(file, error instanceof Error ? error.message : code);
    throw error;
  } finally {
    client.close();
  }
}

function needSqlite(file: string): void {
  const head = Buffer.alloc(16);
  const fd = openSync(file, 'r');
  try {
    readSync(fd, head, 0, 16, 0);
  } finally {
    closeSync(fd);
  }
  if (head.toString('latin1') !== 'SQLite format 3\0') throw damaged(file, 'it is no SQLite file');
}

const damaged = (file: string, how: string): CannotStart =>
  new CannotStart(
    `The database ${file} is damaged (${how.split('\n')[0]?.slice(0, 200)}). Isle has not changed it. Put a backup in its place, or run “npm run isle -- check” to see what is wrong and what can be saved.`,
  );

type Journal = { entries: { when: number; tag: string }[] };

/** Migrations in the order in which they are applied. */
export const migrationList = (): Journal['entries'] =>
  (JSON.parse(readFileSync(join(migrationsFolder(), 'meta', '_journal.json'), 'utf8')) as Journal).entries;

function schemaState(client: Database.Database, file: string): Inspected {
  const known = migrationList();
  const table = client
    .prepare("SELECT 1 FROM sqlite_master WHERE type = 'table' AND name = '__drizzle_migrations'")
    .get();
  if (!table) {
    const tables = client.prepare('SELECT count(*) FROM sqlite_master').pluck().get() as number;
    if (tables === 0) return { state: 'new' };
    throw new CannotStart(
      `${file} is a database of another program. Move it away, or name another folder with ISLE_DATA.`,
    );
  }
  const last = client.prepare('SELECT max(created_at) FROM __drizzle_migrations').pluck().get() as
    number | null;
  const newest = known[known.length - 1];
  if (last !== null && newest && last > newest.when)
    throw new CannotStart(
      `The database ${file} was written by a newer Isle. Isle has not changed it. Start that Isle, or put a backup from before in its place.`,
    );
  if (newest && last === newest.when) return { state: 'present' };
  const tag = known.filter(({ when }) => when <= (last ?? 0)).pop()?.tag ?? 'empty';
  return { state: 'older', tag };
}

/** Copies a database aside before it is migrated; answers where to. */
export function copyAside(folder: string, file: string, tag: string): string {
  const free = freeSpace(folder);
  const size = statSync(file).size;
  if (free !== null && free < size * 1.5 + LEAST_FREE)
    throw new CannotStart(
      `There is too little room on the disk of ${folder} to copy the database aside before it is brought to the present version: ${say(size * 1.5 + LEAST_FREE)} are needed, ${say(free)} are free. Make room and start again.`,
    );
  const stamp = new Date().toISOString().replace(/[:.]/g, '-');
  const copy = join(folder, `isle-${tag}-${stamp}.db`);
  const client = new Database(file, { fileMustExist: true });
  try {
    client.prepare('VACUUM INTO ?').run(copy);
  } finally {
    client.close();
  }
  return copy;
}

/** A sentence where the disk is nearly full, or `null`: reading goes on, saves may not. */
export function spaceWarning(folder: string): string | null {
  const free = freeSpace(folder);
  return free !== null && free < LEAST_FREE
    ? `Only ${say(free)} are free on the disk of ${folder}: saves may fail. Make room.`
    : null;
}

function freeSpace(folder: string): number | null {
  try {
    const { bavail, bsize } = statfsSync(folder);
    return bavail * bsize;
  } catch {
    return null;
  }
}

const say = (bytes: number): string => `${Math.ceil(bytes / 1e6)} MB`;

const codeOf = (error: unknown): string => {
  const { code } = (error ?? {}) as { code?: unknown };
  return typeof code === 'string' ? code : String(error);
};

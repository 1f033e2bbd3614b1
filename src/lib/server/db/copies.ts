import { existsSync, mkdirSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { basename, join } from 'node:path';
import Database from 'better-sqlite3';
import { CannotStart, inspectDatabase } from './inspect';
import { openDatabase } from './open';

/** What a database holds: how many rows in each of its tables. */
export type Counts = Record<string, number>;

export type MadeCopy = { file: string; bytes: number; rows: number };

/** What backups are called: by the second in which they were begun, in UTC. */
const NAME = /^isle-backup-(\d{4}-\d{2}-\d{2})T(\d{2})-(\d{2})-(\d{2})Z\.db$/;

export const copyName = (at: Date): string =>
  `isle-backup-${at
    .toISOString()
    .replace(/\.\d+Z$/, 'Z')
    .replaceAll(':', '-')}.db`;

/** When a backup was begun, by its name; `null` for any other file. */
export function copiedAt(file: string): number | null {
  const parts = NAME.exec(basename(file));
  return parts ? Date.parse(`${parts[1]}T${parts[2]}:${parts[3]}:${parts[4]}Z`) : null;
}

/** The backups in a folder, the newest first. */
export function listCopies(folder: string): { file: string; at: number; bytes: number }[] {
  if (!existsSync(folder)) return [];
  return readdirSync(folder)
    .flatMap((file) => {
      const at = copiedAt(file);
      return at === null ? [] : [{ file, at, bytes: statSync(join(folder, file)).size }];
    })
    .sort((one, other) => other.at - one.at);
}

/**
 * Copies a database while it is in use (SQLite's online backup), looks the copy over, restores it into a scratch file and counts its
 * rows again. Only a copy that passes all of it gets its name; anything else leaves nothing behind.
 */
export async function makeCopy(store: string, folder: string, at = new Date()): Promise<MadeCopy> {
  mkdirSync(folder, { recursive: true });
  const file = copyName(at);
  const path = join(folder, file);
  if (existsSync(path)) throw new CannotStart(`There is a backup ${file} already.`);
  const [raw, scratch] = [`${path}.part`, `${path}.scratch`];
  try {
    const source = new Database(store, { readonly: true, fileMustExist: true });
    try {
      await source.backup(raw);
    } finally {
      source.close();
    }
    alone(raw);
    const counts = verifyCopy(raw);
    await restoreCopy(raw, scratch);
    const again = countsOf(scratch);
    const other = Object.keys(counts).find((table) => counts[table] !== again[table]);
    if (other !== undefined)
      throw new CannotStart(
        `The backup did not come back whole: ${other} has ${again[other]} rows of ${counts[other]}.`,
      );
    renameSync(raw, path);
    return {
      file,
      bytes: statSync(path).size,
      rows: Object.values(counts).reduce((sum, rows) => sum + rows, 0),
    };
  } finally {
    for (const one of [raw, scratch])
      for (const end of ['', '-wal', '-shm', '-journal']) rmSync(one + end, { force: true });
  }
}

/** Makes one file of a copy, which nothing beside it belongs to. */
function alone(path: string): void {
  const client = new Database(path);
  try {
    client.pragma('journal_mode = DELETE');
  } finally {
    client.close();
  }
}

/** Looks a copy over: that it is whole, and of an Isle that this one knows. Answers what it holds; throws a sentence. */
export function verifyCopy(path: string): Counts {
  if (!existsSync(path)) throw new CannotStart(`There is no file ${path}.`);
  if (inspectDatabase(path).state === 'new') throw new CannotStart(`${path} is empty.`);
  const client = new Database(path, { readonly: true });
  try {
    const wrong = client.pragma('integrity_check(3)') as { integrity_check: string }[];
    const first = wrong.find(({ integrity_check }) => integrity_check !== 'ok');
    if (first) throw new CannotStart(`${path} is damaged: ${first.integrity_check.split('\n')[0]}`);
    const dangling = client.pragma('foreign_key_check') as { table: string; parent: string }[];
    const [one] = dangling;
    if (one)
      throw new CannotStart(
        `${path} is not whole: ${dangling.length} rows refer to what is not there (${one.table} to ${one.parent}).`,
      );
  } finally {
    client.close();
  }
  return countsOf(path);
}

/** The rows of each table. */
export function countsOf(path: string): Counts {
  const client = new Database(path, { readonly: true, fileMustExist: true });
  try {
    const tables = client
      .prepare(
        "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%' ORDER BY name",
      )
      .pluck()
      .all() as string[];
    return Object.fromEntries(
      tables.map((table) => [
        table,
        client.prepare(`SELECT count(*) FROM "${table}"`).pluck().get() as number,
      ]),
    );
  } finally {
    client.close();
  }
}

/** Puts a copy where there is no database yet, and brings it to this Isle's version where it is older. */
export async function restoreCopy(from: string, to: string): Promise<void> {
  if (existsSync(to))
    throw new CannotStart(`There is a database ${to} already. Name another folder, or move that one away.`);
  const source = new Database(from, { readonly: true, fileMustExist: true });
  try {
    await source.backup(to);
  } finally {
    source.close();
  }
  openDatabase(to).$client.close();
}

/** Takes the oldest backups away, but for the newest so many. */
export function rotateCopies(folder: string, keep: number): string[] {
  const gone = listCopies(folder).slice(keep);
  for (const { file } of gone) rmSync(join(folder, file), { force: true });
  return gone.map(({ file }) => file);
}

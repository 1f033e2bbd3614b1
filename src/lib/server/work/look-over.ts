import { createHash } from 'node:crypto';
import type { Db } from '../db/open';
import { getSheet } from '../repo/client-sheets';
import { getLayout } from '../repo/layouts';
import { getMockup } from '../repo/mockups';
import { readStored } from '../repo/stored';

export type Looked = {
  /** One sentence for each fault. */
  problems: string[];
  /** How many of each kind can be read, of how many. */
  counts: { what: string; readable: number; all: number }[];
};

const MOST_PROBLEMS = 100;

/**
 * Checks all of a database: its pages and keys by SQLite, every recipe and layout by reading it, every file by its hash.
 * Nothing is changed. What cannot be read is named and passed over.
 */
export function lookOver(db: Db): Looked {
  const problems: string[] = [];
  const say = (text: string): void => void (problems.length < MOST_PROBLEMS && problems.push(text));
  for (const text of pragma(db, 'integrity_check(20)')) if (text !== 'ok') say(`SQLite finds: ${text}.`);
  for (const text of keyFaults(db)) say(text);
  const counts = [
    count(db, 'patterns', 'SELECT id FROM pattern', (id) => {
      const row = db.$client.prepare('SELECT name, newest, draft FROM pattern WHERE id = ?').get(id) as {
        name: string;
        newest: number;
        draft: string | null;
      };
      const revisions = db.$client
        .prepare('SELECT number, recipe FROM revision WHERE pattern_id = ?')
        .all(id) as { number: number; recipe: string }[];
      const drafts = row.draft === null ? [] : [{ what: 'its draft', json: row.draft }];
      const texts = revisions.map(({ number, recipe }) => ({ what: `revision ${number}`, json: recipe }));
      for (const { what, json } of [...texts, ...drafts]) {
        const read = readStored(db, json);
        if (!read.ok) return `“${row.name}”, ${what}: ${read.failure.message}`;
      }
      return revisions.some(({ number }) => number === row.newest) || row.newest === 0
        ? null
        : `“${row.name}”: revision ${row.newest} is missing.`;
    }),
    count(db, 'layouts', 'SELECT id FROM layout', (id) => {
      const read = getLayout(db, id);
      if (!read.ok) return `The layout ${id}: ${read.failure.message}`;
      const [fault] = read.value.faults ?? [];
      return fault ? `“${read.value.name}”: ${fault}` : null;
    }),
    count(db, 'mock-ups', 'SELECT id FROM mockup', (id) => {
      const read = getMockup(db, id);
      return read.ok ? null : read.failure.message;
    }),
    count(db, 'client sheets', 'SELECT id FROM client_sheet', (id) => {
      const read = getSheet(db, id);
      return read.ok ? null : read.failure.message;
    }),
    count(db, 'files', 'SELECT hash FROM motif_asset', (hash) => {
      const file = db.$client
        .prepare('SELECT bytes, file_name AS name FROM motif_asset WHERE hash = ? AND studio_id = ?')
        .get(hash, db.studio) as { bytes: Buffer; name: string };
      return createHash('sha256').update(file.bytes).digest('hex') === hash
        ? null
        : `The file “${file.name}” is not what was kept: its bytes have changed.`;
    }),
    count(db, 'palettes', 'SELECT id FROM palette', (id) => {
      db.$client.prepare('SELECT * FROM palette_colour WHERE palette_id = ?').all(id);
      return null;
    }),
  ];
  for (const one of counts) for (const text of one.problems) say(text);
  return { problems, counts: counts.map(({ what, readable, all }) => ({ what, readable, all })) };
}

function count(
  db: Db,
  what: string,
  sql: string,
  fault: (id: string) => string | null,
): { what: string; readable: number; all: number; problems: string[] } {
  const problems: string[] = [];
  let ids: string[] = [];
  try {
    ids = db.$client.prepare(sql).pluck().all() as string[];
  } catch (error) {
    problems.push(`The list of ${what} cannot be read (${reason(error)}).`);
  }
  let readable = 0;
  for (const id of ids) {
    try {
      const found = fault(id);
      if (found === null) readable += 1;
      else problems.push(found);
    } catch (error) {
      problems.push(`One of the ${what} (${id}) cannot be read (${reason(error)}).`);
    }
  }
  return { what, readable, all: ids.length, problems };
}

function keyFaults(db: Db): string[] {
  try {
    const rows = db.$client.pragma('foreign_key_check') as { table: string; parent: string }[];
    const kinds = new Map<string, number>();
    for (const { table, parent } of rows) {
      const key = `in “${table}” refer to a missing “${parent}”`;
      kinds.set(key, (kinds.get(key) ?? 0) + 1);
    }
    return [...kinds].map(([key, rows]) => `${rows} rows ${key}.`);
  } catch (error) {
    return [`The keys cannot be checked (${reason(error)}).`];
  }
}

function pragma(db: Db, text: string): string[] {
  try {
    return (db.$client.pragma(text) as Record<string, string>[]).map((row) => Object.values(row)[0] ?? '');
  } catch (error) {
    return [reason(error)];
  }
}

const reason = (error: unknown): string => (error instanceof Error ? error.message : String(error));

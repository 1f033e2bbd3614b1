import { mkdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import Database from 'better-sqlite3';
import { drizzle, type BetterSQLite3Database } from 'drizzle-orm/better-sqlite3';
import { migrate } from 'drizzle-orm/better-sqlite3/migrator';
import { nanoid } from 'nanoid';
import { appRoot } from '../root';
import { preparingOnce } from './preparing';
import * as schema from './schema';

/**
 * A database as it is asked: whose studio's rows are meant, and who asks (`null` where it is the server itself). One file holds
 * one studio; see docs/decisions.
 */
export type Db = BetterSQLite3Database<typeof schema> & {
  $client: Database.Database;
  readonly studio: string;
  readonly person: string | null;
};

/** The folder of the migrations, beside the application. */
export const migrationsFolder = (): string => join(appRoot(), 'drizzle');

/**
 * Opens the database at `file` (":memory:" for tests), brings it to the newest migration and makes the studio row.
 * An acknowledged save is on disk: WAL with synchronous=FULL. Whether a file may be opened at all is for
 * `inspect.ts` to say, before this.
 */
export function openDatabase(file: string): Db {
  if (file !== ':memory:') mkdirSync(dirname(file), { recursive: true });
  const client = new Database(file);
  try {
    client.pragma('busy_timeout = 5000');
    client.pragma('journal_mode = WAL');
    client.pragma('synchronous = FULL');
    // Tables that are built anew are dropped on the way, which must not take along what refers to them.
    client.pragma('foreign_keys = OFF');
    migrate(drizzle(client), { migrationsFolder: migrationsFolder() });
    client.pragma('foreign_keys = ON');
    return queried(client, studioOf(client) ?? makeStudio(client));
  } catch (error) {
    client.close();
    throw error;
  }
}

/** The database at `file` for reading alone: it is never written, and must be there. */
export function openReader(file: string): Db {
  const client = new Database(file, { readonly: true, fileMustExist: true });
  client.pragma('busy_timeout = 5000');
  return queried(client, studioOf(client) ?? '');
}

/** The same database, asked by a person. */
export const askedBy = (db: Db, person: string | null): Db =>
  Object.assign(Object.create(db) as Db, { person });

const studioOf = (client: Database.Database): string | null =>
  (client.prepare('SELECT id FROM studio ORDER BY created_at LIMIT 1').pluck().get() as string | undefined) ??
  null;

function makeStudio(client: Database.Database): string {
  const id = nanoid(12);
  client.prepare('INSERT INTO studio (id, name, created_at) VALUES (?, ?, ?)').run(id, 'Studio', Date.now());
  return id;
}

const queried = (client: Database.Database, studio: string): Db =>
  Object.assign(drizzle(preparingOnce(client), { schema }), {
    ...{ $client: client, studio, person: null },
  }) as Db;

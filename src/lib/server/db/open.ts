import { mkdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import Database from 'better-sqlite3';
import { drizzle, type BetterSQLite3Database } from 'drizzle-orm/better-sqlite3';
import { migrate } from 'drizzle-orm/better-sqlite3/migrator';
import { appRoot } from '../root';
import { preparingOnce } from './preparing';
import * as schema from './schema';

export type Db = BetterSQLite3Database<typeof schema> & { $client: Database.Database };

/** The one studio there is until members and sign-in come; every row already says that it belongs to it. */
export const STUDIO = 'studio';

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
    const db = queried(client);
    db.insert(schema.studio)
      .values({ id: STUDIO, name: 'Studio', createdAt: Date.now() })
      .onConflictDoNothing()
      .run();
    return db;
  } catch (error) {
    client.close();
    throw error;
  }
}

/** The database at `file` for reading alone: it is never written, and must be there. */
export function openReader(file: string): Db {
  const client = new Database(file, { readonly: true, fileMustExist: true });
  client.pragma('busy_timeout = 5000');
  return queried(client);
}

const queried = (client: Database.Database): Db =>
  Object.assign(drizzle(preparingOnce(client), { schema }), { $client: client }) as Db;

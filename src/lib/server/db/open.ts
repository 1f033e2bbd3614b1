import { mkdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import Database from 'better-sqlite3';
import { drizzle, type BetterSQLite3Database } from 'drizzle-orm/better-sqlite3';
import { migrate } from 'drizzle-orm/better-sqlite3/migrator';
import { appRoot } from '../root';
import * as schema from './schema';

export type Db = BetterSQLite3Database<typeof schema> & { $client: Database.Database };

/** The one studio there is until members and sign-in come; every row already says that it belongs to it. */
export const STUDIO = 'studio';

/**
 * Opens the database at `file` (":memory:" for tests), brings it to the newest migration and makes the studio row.
 * An acknowledged save is on disk: WAL with synchronous=FULL.
 */
export function openDatabase(file: string): Db {
  if (file !== ':memory:') mkdirSync(dirname(file), { recursive: true });
  const client = new Database(file);
  client.pragma('journal_mode = WAL');
  client.pragma('synchronous = FULL');
  client.pragma('foreign_keys = ON');
  client.pragma('busy_timeout = 5000');
  const db = drizzle(client, { schema }) as Db;
  migrate(db, { migrationsFolder: join(appRoot(), 'drizzle') });
  db.insert(schema.studio)
    .values({ id: STUDIO, name: 'Studio', createdAt: Date.now() })
    .onConflictDoNothing()
    .run();
  return db;
}

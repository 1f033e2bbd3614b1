import { join } from 'node:path';
import { openDatabase, type Db } from '../db/open';
import { seedDemo } from '../demo/seed';
import { openExports, type Exports } from '../jobs/exports';
import { openRenderPool, type RenderPool } from '../render/pool';
import { appRoot } from '../root';
import { openPictures, type Pictures } from './pictures';
import { WaitingFiles } from './waiting';

/** What the running server holds: one database, one render pool, pictures ready to draw, the export jobs. */
export type App = {
  db: Db;
  pool: RenderPool;
  exports: Exports;
  pictures: Pictures;
  /** Files that were read and wait for the decision what to take in. */
  waiting: WaitingFiles;
};

/** The folder for the database and exported files: ISLE_DATA, or `data` beside the application. */
export function dataFolder(environment: NodeJS.ProcessEnv): string {
  return environment.ISLE_DATA || join(appRoot(), 'data');
}

/** Opens everything. With ISLE_DEMO=1 an empty database is filled with the demo data. */
export function openApp(environment: NodeJS.ProcessEnv): App {
  const folder = dataFolder(environment);
  const db = openDatabase(join(folder, 'isle.db'));
  if (environment.ISLE_DEMO === '1') seedDemo(db);
  const pool = openRenderPool();
  const pictures = openPictures(db, pool);
  const exports = openExports(pool, join(folder, 'exports'), pictures);
  return { db, pool, pictures, exports, waiting: new WaitingFiles() };
}

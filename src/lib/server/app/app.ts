import { mkdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { nanoid } from 'nanoid';
import { copyAside, inspectDatabase, lockFolder, needFolder, spaceWarning } from '../db/inspect';
import { openDatabase, type Db } from '../db/open';
import { seedDemo } from '../demo/seed';
import { openExports, type Exports } from '../jobs/exports';
import { openProcesses, type Processes } from '../processes/pool';
import { appRoot } from '../root';
import { Events } from './events';
import { Made } from './made';
import { ChangedPictures } from './changed-pictures';
import { keepTidy } from './tidying';
import { WaitingFiles } from './waiting';

/** What the running server holds: one database, the child processes that parse and draw, the export jobs. */
export type App = {
  db: Db;
  /** The database's file, for child processes. */
  store: string;
  processes: Processes;
  exports: Exports;
  changed: ChangedPictures;
  made: Made;
  events: Events;
  /** Files that were read and wait for the decision what to take in. */
  waiting: WaitingFiles;
  /** True once the server is being stopped: it takes no new work. */
  stopping: boolean;
  /** Writes a line to the log. */
  say: (line: string) => void;
  /** A fresh path for a file that lives as long as one request. */
  workFile: () => string;
  /** Takes such a file away, where it is there. */
  forget: (path: string) => void;
  /** Ends all work under way and closes the database. */
  close: () => Promise<void>;
};

/** The folder for the database and exported files: ISLE_DATA, or `data` beside the application. */
export function dataFolder(environment: NodeJS.ProcessEnv): string {
  return environment.ISLE_DATA || join(appRoot(), 'data');
}

/**
 * Opens everything. With ISLE_DEMO=1 an empty database is filled with the demo data. A start that cannot be throws one
 * sentence (`CannotStart`); nothing was changed then.
 */
export function openApp(environment: NodeJS.ProcessEnv): App {
  const folder = dataFolder(environment);
  const store = join(folder, 'isle.db');
  const say = (line: string): void => void process.stderr.write(`${line}\n`);
  needFolder(folder);
  const lock = lockFolder(folder);
  try {
    const db = openStore(folder, store, say);
    if (environment.ISLE_DEMO === '1') seedDemo(db);
    return running(folder, store, db, say, lock.release);
  } catch (error) {
    lock.release();
    throw error;
  }
}

/** Looks at the database before it is touched, copies an older one aside, and opens it. */
function openStore(folder: string, store: string, say: (line: string) => void): Db {
  const found = inspectDatabase(store);
  if (found.state === 'older')
    say(`The database is from before; it was copied to ${copyAside(folder, store, found.tag)}.`);
  const warning = spaceWarning(folder);
  if (warning) say(warning);
  return openDatabase(store);
}

function running(
  folder: string,
  store: string,
  db: Db,
  say: (line: string) => void,
  release: () => void,
): App {
  const processes = openProcesses(say);
  const work = join(folder, 'work');
  rmSync(work, { recursive: true, force: true });
  mkdirSync(work, { recursive: true });
  const events = new Events(db);
  const keeping = keepTidy(db, store, processes, say);
  const app: App = {
    db,
    store,
    processes,
    events,
    exports: openExports(processes, join(folder, 'exports')),
    changed: new ChangedPictures(store, processes),
    made: new Made(db, store, processes),
    waiting: new WaitingFiles(work),
    stopping: false,
    say,
    workFile: () => join(work, nanoid(16)),
    forget: (path) => rmSync(path, { force: true }),
    close: async () => {
      if (app.stopping) return;
      app.stopping = true;
      keeping.stop();
      events.close();
      await processes.close();
      if (db.$client.open) db.$client.close();
      release();
    },
  };
  return app;
}

import { mkdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { nanoid } from 'nanoid';
import { CannotStart, copyAside, inspectDatabase, lockFolder, needFolder, spaceWarning } from '../db/inspect';
import { openDatabase, type Db } from '../db/open';
import { seedDemo } from '../demo/seed';
import { openExports, type Exports } from '../jobs/exports';
import { openProcesses, type Processes } from '../processes/pool';
import { hasOwner } from '../repo/people';
import { appRoot } from '../root';
import { Backups } from './backups';
import { Events } from './events';
import { isBeyondThisMachine } from './hosts';
import { Made } from './made';
import { ChangedPictures } from './changed-pictures';
import { Outbox } from './people/outbox';
import { Passkeys } from './people/passkeys';
import { FREE_OF_ADDRESS, Patience } from './people/patience';
import { Measures, openLog, type Log } from './measures';
import { Rates } from './rates';
import { Present } from './presence';
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
  /** Who is where. */
  present: Present;
  /** Backups of all there is. */
  backups: Backups;
  /** Passkeys that are being asked for, and how long those wait who get a password wrong. */
  passkeys: Passkeys;
  patience: Patience;
  /** The same for all who ask from one address. */
  addresses: Patience;
  /** What would be sent by mail; in the demo alone. */
  outbox: Outbox | null;
  /** Files that were read and wait for the decision what to take in. */
  waiting: WaitingFiles;
  /** True once the server is being stopped: it takes no new work. */
  stopping: boolean;
  /** What is counted and timed, for whoever watches the machine. */
  measures: Measures;
  /** Which asks that cost much are taken of one asker. */
  rates: Rates;
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
  const log = openLog(environment);
  const say = (line: string): void => (log ? log.warn(line) : void process.stderr.write(`${line}\n`));
  needFolder(folder);
  const lock = lockFolder(folder);
  try {
    const db = openStore(folder, store, say);
    if (environment.ISLE_DEMO === '1') seedDemo(db);
    if (isBeyondThisMachine(environment) && !hasOwner(db)) {
      db.$client.close();
      throw new CannotStart(NO_OWNER);
    }
    return running(folder, store, db, say, lock.release, environment.ISLE_DEMO === '1', log);
  } catch (error) {
    lock.release();
    throw error;
  }
}

const NO_OWNER =
  'Isle may be reached from other machines only once the studio has an owner. Run “npm run isle -- owner NAME ADDRESS” on this machine and start it again, or start it without HOST and ORIGIN and open the studio there.';

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
  demo: boolean,
  log: Log | null,
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
    present: new Present(events),
    exports: openExports(processes, join(folder, 'exports')),
    changed: new ChangedPictures(store, processes),
    made: new Made(db, store, processes),
    backups: new Backups(db, store, folder, processes, say),
    passkeys: new Passkeys(),
    patience: new Patience(),
    addresses: new Patience(undefined, FREE_OF_ADDRESS),
    outbox: demo ? new Outbox() : null,
    waiting: new WaitingFiles(work),
    measures: new Measures(log, () => events.count),
    rates: new Rates(),
    stopping: false,
    say,
    workFile: () => join(work, nanoid(16)),
    forget: (path) => rmSync(path, { force: true }),
    close: async () => {
      if (app.stopping) return;
      app.stopping = true;
      keeping.stop();
      app.present.stop();
      app.backups.stop();
      events.close();
      await processes.close();
      if (db.$client.open) db.$client.close();
      release();
    },
  };
  return app;
}

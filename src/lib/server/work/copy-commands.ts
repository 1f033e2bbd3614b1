import { existsSync, mkdirSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { makeCopy, restoreCopy, verifyCopy } from '../db/copies';
import { CannotStart } from '../db/inspect';

type Say = (line: string) => void;

export const COPY_COMMANDS = [
  'npm run isle -- backup [FOLDER]           copies and checks the database, also beside a running Isle',
  'npm run isle -- verify FILE               looks a backup over',
  'npm run isle -- restore FILE NEW-FOLDER   puts a backup into a new data folder',
];

/** `backup`, `verify` and `restore`: all of a studio is one database. Answers the exit code. */
export async function copyCommand(
  task: string,
  rest: readonly string[],
  data: string,
  say: Say,
): Promise<number> {
  const [first, second] = rest;
  try {
    if (task === 'backup') {
      const store = join(data, 'isle.db');
      if (!existsSync(store)) throw new CannotStart(`There is no database in ${data}.`);
      const { file, bytes, rows } = await makeCopy(store, resolve(first ?? join(data, 'backups')));
      say(
        `${file}: ${(bytes / 1e6).toFixed(1)} MB, ${rows} rows; it was restored into a scratch file, and all were there.`,
      );
      return 0;
    }
    if (task === 'verify' && first) {
      const counts = verifyCopy(resolve(first));
      for (const [table, rows] of Object.entries(counts)) say(`${table}: ${rows}`);
      say('Nothing is wrong.');
      return 0;
    }
    if (task === 'restore' && first && second) {
      const from = resolve(first);
      verifyCopy(from);
      mkdirSync(resolve(second), { recursive: true });
      await restoreCopy(from, join(resolve(second), 'isle.db'));
      say(`It lies in ${resolve(second)}; start Isle with ISLE_DATA=${resolve(second)}.`);
      return 0;
    }
    for (const line of COPY_COMMANDS) say(line);
    return 2;
  } catch (error) {
    say(error instanceof Error ? error.message : String(error));
    return 1;
  }
}

import type { Db } from '../db/open';
import type { Processes } from '../processes/pool';
import { clearMade } from '../repo/made';
import { clearOld, deleteAssets } from '../repo/tidying';

const FIRST_MS = 20_000;
const EVERY_MS = 24 * 3_600_000;

/**
 * Looks after the database while Isle runs: clears what is past its time, and has a child process check all of it. What
 * is found stands in the log.
 */
export function keepTidy(
  db: Db,
  store: string,
  processes: Processes,
  say: (line: string) => void,
): { stop: () => void } {
  const look = async (): Promise<void> => {
    try {
      clearOld(db);
      clearMade(db);
      const found = await processes.run('lookOver', { store });
      if (!found.ok) return;
      for (const problem of found.value.problems) say(`The database: ${problem}`);
      if (found.value.problems.length === 0 && db.$client.open) deleteAssets(db, found.value.unused);
    } catch (error) {
      say(`Looking the database over did not work: ${String(error)}`);
    }
  };
  const first = setTimeout(() => void look(), FIRST_MS).unref();
  const again = setInterval(() => void look(), EVERY_MS).unref();
  return {
    stop: () => {
      clearTimeout(first);
      clearInterval(again);
    },
  };
}

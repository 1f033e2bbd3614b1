import type { Db } from '../db/open';
import type { Processes } from '../processes/pool';
import { clearMade } from '../repo/made';
import { thinStates } from '../repo/layout-states';
import { keepSetting } from '../repo/settings';
import { clearingRule, clearOld, deleteAssets } from '../repo/tidying';

const FIRST_MS = 20_000;
const THIN_MS = 60_000;
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
      const rule = clearingRule(db);
      const gone = clearOld(db, Date.now(), rule.events);
      clearMade(db);
      const found = await processes.run('lookOver', { store });
      if (!found.ok) return;
      for (const problem of found.value.problems) say(`The database: ${problem}`);
      if (!db.$client.open) return;
      const sound = found.value.problems.length === 0;
      const files = sound ? deleteAssets(db, found.value.unused, Date.now(), rule.files) : 0;
      if (gone.events + gone.changes + files > 0)
        keepSetting(db, 'cleared', { at: Date.now(), ...gone, files });
    } catch (error) {
      say(`Looking the database over did not work: ${String(error)}`);
    }
  };
  // States of layouts are taken together as they grow older, some layouts at a time.
  const thin = setInterval(() => {
    try {
      if (db.$client.open) thinStates(db);
    } catch (error) {
      say(`Taking older states together did not work: ${String(error)}`);
    }
  }, THIN_MS).unref();
  const first = setTimeout(() => void look(), FIRST_MS).unref();
  const again = setInterval(() => void look(), EVERY_MS).unref();
  return {
    stop: () => {
      clearTimeout(first);
      clearInterval(again);
      clearInterval(thin);
    },
  };
}

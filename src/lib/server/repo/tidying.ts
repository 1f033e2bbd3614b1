import { FRESH_RULE, type ClearingRule } from '../../contract/backups';
import type { Db } from '../db/open';
import { readSetting } from './settings';

/**
 * What is cleared, and when: by a rule that owners see and set. What happened goes after so many days, but for the newest thousand.
 * Changes of many fills can be undone for thirty days, the newest fifty of them. Files that nothing refers to any more
 * go so many days after they were last brought in: until then somebody may have them on the bench, not yet saved.
 */
const DAY = 86_400_000;
const EVENT_DAYS = 7;
const EVENTS_KEPT = 1000;
const CHANGE_DAYS = 30;
const CHANGES_KEPT = 50;
const ASSET_DAYS = 7;

/** Clears events and changes that are past their time. */
export function clearOld(db: Db, now = Date.now(), days = EVENT_DAYS): { events: number; changes: number } {
  const run = (sql: string, ...values: unknown[]): number => db.$client.prepare(sql).run(...values).changes;
  return db.$client.transaction(() => ({
    events: run(
      'DELETE FROM event WHERE created_at < ? AND id <= (SELECT max(id) FROM event) - ?',
      now - days * DAY,
      EVENTS_KEPT,
    ),
    changes: run(
      `DELETE FROM bulk_change WHERE created_at < ? OR id NOT IN
        (SELECT id FROM bulk_change ORDER BY created_at DESC LIMIT ?)`,
      now - CHANGE_DAYS * DAY,
      CHANGES_KEPT,
    ),
  }))();
}

/** Everything that may name a file: recipes, fills, masks, sheets, and what can be undone. */
const REFERRING = [
  'SELECT recipe FROM revision',
  'SELECT draft FROM pattern WHERE draft IS NOT NULL',
  'SELECT mask FROM fill WHERE mask IS NOT NULL',
  'SELECT asset FROM fill WHERE asset IS NOT NULL',
  'SELECT cut FROM fill WHERE cut IS NOT NULL',
  'SELECT mask FROM shape WHERE mask IS NOT NULL',
  'SELECT sheet FROM strike_off',
  'SELECT body FROM mockup',
  'SELECT body FROM photo_object',
  'SELECT fills FROM bulk_change',
  'SELECT assets FROM layout_log WHERE assets IS NOT NULL',
];

/** The hashes of files that nothing refers to and that were brought in more than a week ago. Reads all of the library. */
export function unusedAssets(db: Db, now = Date.now()): string[] {
  const old = db.$client
    .prepare('SELECT hash FROM motif_asset WHERE created_at < ?')
    .pluck()
    .all(now - ASSET_DAYS * DAY) as string[];
  const left = new Set(old);
  for (const sql of REFERRING) {
    if (left.size === 0) return [];
    for (const text of db.$client.prepare(sql).pluck().iterate() as IterableIterator<string>)
      for (const [hash] of text.matchAll(/\b[0-9a-f]{64}\b/g)) left.delete(hash);
  }
  return [...left];
}

/** Deletes files that were found to be unused, but for those that were brought in again since. */
export function deleteAssets(db: Db, hashes: readonly string[], now = Date.now(), days = ASSET_DAYS): number {
  return db.$client
    .prepare(
      `DELETE FROM motif_asset WHERE created_at < ? AND hash IN (SELECT value FROM json_each(?))
        AND hash NOT IN (SELECT asset FROM fill WHERE asset IS NOT NULL)`,
    )
    .run(now - days * DAY, JSON.stringify(hashes)).changes;
}

/** The rule of what is cleared, as owners have set it. */
export const clearingRule = (db: Db): ClearingRule => ({ ...FRESH_RULE, ...readSetting(db, 'clearing') });

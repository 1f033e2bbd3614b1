import type { BackupSettings, Cleared, ClearingRule, LastBackup } from '../../contract/backups';
import type { Db } from '../db/open';
import { statement } from './rows';

/** What is noted of the database itself, each as JSON under its name. */
type Settings = {
  backups: BackupSettings;
  'backup.last': LastBackup;
  clearing: ClearingRule;
  cleared: Cleared;
};

export function readSetting<K extends keyof Settings>(db: Db, key: K): Settings[K] | null {
  const text = statement(db, 'SELECT value FROM setting WHERE key = ?').pluck().get(key) as
    string | undefined;
  return text === undefined ? null : (JSON.parse(text) as Settings[K]);
}

export function keepSetting<K extends keyof Settings>(db: Db, key: K, value: Settings[K]): void {
  statement(
    db,
    'INSERT INTO setting (key, value) VALUES (?, ?) ON CONFLICT (key) DO UPDATE SET value = excluded.value',
  ).run(key, JSON.stringify(value));
}

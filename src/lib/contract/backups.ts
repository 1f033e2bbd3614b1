/** How backups are made. */
export type BackupSettings = {
  /** Where they lie; `null` is `backups` in the data folder. */
  folder: string | null;
  /** How many hours lie between two; 0 makes none by itself. */
  every: number;
  /** How many are kept. */
  keep: number;
};

export const FRESH_BACKUPS: BackupSettings = { folder: null, every: 24, keep: 14 };
export const BACKUP_LIMITS = { every: { least: 0, most: 720 }, keep: { least: 1, most: 400 } } as const;

/** How the last backup came out. */
export type LastBackup =
  | { at: number; ok: true; file: string; bytes: number; rows: number }
  | { at: number; ok: false; message: string };

export type BackupsData = {
  settings: BackupSettings;
  /** Where they lie now. */
  place: string;
  last: LastBackup | null;
  files: { file: string; at: number; bytes: number }[];
  /** A sentence where none is young enough. */
  warning: string | null;
};

/** After how many days what is cleared by itself goes: what happened, and files that nothing refers to any more. */
export type ClearingRule = { events: number; files: number };
export const FRESH_RULE: ClearingRule = { events: 90, files: 7 };
export const CLEARING_LIMITS = { events: { least: 7, most: 3650 }, files: { least: 7, most: 3650 } } as const;

/** What was cleared last, and when. */
export type Cleared = { at: number; events: number; changes: number; files: number };

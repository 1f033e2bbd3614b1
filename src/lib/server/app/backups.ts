import { accessSync, constants, mkdirSync } from 'node:fs';
import { isAbsolute, join } from 'node:path';
import {
  FRESH_BACKUPS,
  type BackupsData,
  type BackupSettings,
  type LastBackup,
} from '../../contract/backups';
import { done, fail, type Outcome } from '../../contract/failure';
import { listCopies, rotateCopies } from '../db/copies';
import type { Db } from '../db/open';
import type { Processes } from '../processes/pool';
import { note } from '../repo/context';
import { keepSetting, readSetting } from '../repo/settings';

const LOOK_MS = 10 * 60 * 1000;
const FIRST_MS = 60_000;
const HOUR_MS = 3_600_000;
/** Each is to be this much older than it should before one is warned. */
const LATE = 2;

/** Makes backups in their time, and remembers how the last came out. */
export class Backups {
  private readonly timers: NodeJS.Timeout[];
  private running: Promise<Outcome<LastBackup>> | null = null;

  constructor(
    private readonly db: Db,
    private readonly store: string,
    private readonly folder: string,
    private readonly processes: Processes,
    private readonly say: (line: string) => void,
  ) {
    this.timers = [setTimeout(() => this.look(), FIRST_MS), setInterval(() => this.look(), LOOK_MS)];
    for (const timer of this.timers) timer.unref();
  }

  stop(): void {
    for (const timer of this.timers) clearTimeout(timer);
  }

  settings(): BackupSettings {
    return { ...FRESH_BACKUPS, ...readSetting(this.db, 'backups') };
  }

  private place({ folder }: BackupSettings): string {
    return folder ?? join(this.folder, 'backups');
  }

  data(now = Date.now()): BackupsData {
    const settings = this.settings();
    const files = listCopies(this.place(settings));
    const last = readSetting(this.db, 'backup.last');
    return {
      settings,
      place: this.place(settings),
      last,
      files,
      warning: warningOf(settings, files, last, now),
    };
  }

  /** Sets where and how often; a place that cannot be written to is refused. */
  change(settings: BackupSettings): Outcome<BackupsData> {
    const { folder } = settings;
    if (folder !== null && !isAbsolute(folder))
      return fail('invalid', 'Name the folder from the root on, such as /srv/backups/isle.', 'folder');
    const place = this.place(settings);
    try {
      mkdirSync(place, { recursive: true });
      accessSync(place, constants.R_OK | constants.W_OK | constants.X_OK);
    } catch (error) {
      const why = (error as NodeJS.ErrnoException).code ?? String(error);
      return fail(
        'invalid',
        `Isle cannot write to ${place} (${why}). Give it the right to, or choose another folder.`,
        'folder',
      );
    }
    keepSetting(this.db, 'backups', settings);
    return done(this.data());
  }

  private look(): void {
    const { settings, files } = this.data();
    const newest = files[0]?.at ?? 0;
    if (settings.every > 0 && Date.now() - newest >= settings.every * HOUR_MS) void this.make();
  }

  /** Makes one now, or waits for the one that is being made. */
  make(db: Db = this.db): Promise<Outcome<LastBackup>> {
    return (this.running ??= this.made(db).finally(() => (this.running = null)));
  }

  private async made(db: Db): Promise<Outcome<LastBackup>> {
    const settings = this.settings();
    const place = this.place(settings);
    const at = Date.now();
    const made = await this.processes.run('backup', { store: this.store, folder: place, at });
    if (!this.db.$client.open) return fail('stopping', 'Isle is being stopped.');
    const last: LastBackup = made.ok
      ? { at, ok: true, ...made.value }
      : { at, ok: false, message: made.failure.message };
    keepSetting(this.db, 'backup.last', last);
    if (!made.ok) {
      this.say(`A backup was not made: ${made.failure.message}`);
      return made;
    }
    rotateCopies(place, settings.keep);
    note(db, 'backup.made', '', { file: made.value.file, bytes: made.value.bytes });
    return done(last);
  }
}

function warningOf(
  { every }: BackupSettings,
  files: BackupsData['files'],
  last: LastBackup | null,
  now: number,
): string | null {
  if (every === 0) return 'No backups are made by themselves. Say how often, below.';
  if (last && !last.ok) return `The last backup was not made: ${last.message}`;
  const newest = files[0];
  if (!newest) return last === null ? null : 'There is no backup in this folder.';
  const hours = (now - newest.at) / HOUR_MS;
  return hours > every * LATE
    ? `The newest backup is ${hours < 48 ? `${Math.round(hours)} hours` : `${Math.round(hours / 24)} days`} old.`
    : null;
}

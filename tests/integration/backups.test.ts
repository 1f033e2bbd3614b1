import { copyFileSync, existsSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import {
  copiedAt,
  copyName,
  listCopies,
  makeCopy,
  restoreCopy,
  rotateCopies,
  verifyCopy,
} from '../../src/lib/server/db/copies';
import { openDatabase } from '../../src/lib/server/db/open';
import { createProject } from '../../src/lib/server/repo/projects';
import { kept, laidOut, need, projectNamed } from '../support/studio';

/** Backups: what comes back is what was there, table by table, and what is not whole never counts as one. */
let folder = '';
beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'isle-copies-'))));
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const tables = (file: string): Record<string, unknown[]> => {
  const client = new Database(file, { readonly: true });
  const names = client
    .prepare("SELECT name FROM sqlite_master WHERE type = 'table' ORDER BY name")
    .pluck()
    .all() as string[];
  const all = Object.fromEntries(
    names.map((name) => [name, client.prepare(`SELECT * FROM "${name}" ORDER BY 1, 2`).raw().all()]),
  );
  client.close();
  return all;
};

describe('a backup', () => {
  it('is made while somebody writes, and comes back equal, table by table', async () => {
    const store = join(folder, 'isle.db');
    const db = openDatabase(store);
    for (let count = 0; count < 30; count += 1) kept(db, `Pattern ${count}`);
    laidOut(db, projectNamed(db, 'Job'), 'Sign', []);
    const making = makeCopy(store, join(folder, 'backups'), new Date('2026-11-30T12:00:00Z'));
    for (let count = 0; count < 20; count += 1) {
      need(createProject(db, `While it is made ${count}`));
      await new Promise((resolve) => setImmediate(resolve));
    }
    const { file, rows } = await making;
    db.$client.close();
    expect(file).toBe('isle-backup-2026-11-30T12-00-00Z.db');
    expect(copiedAt(file)).toBe(Date.parse('2026-11-30T12:00:00Z'));
    const copy = join(folder, 'backups', file);
    const to = join(folder, 'elsewhere.db');
    await restoreCopy(copy, to);
    expect(tables(to)).toEqual(tables(copy));
    const { sqlite_sequence: _counters, ...held } = tables(copy);
    expect(rows).toBe(Object.values(held).flat().length);
    expect(readdirSync(join(folder, 'backups'))).toEqual([file]);
    // A second one at rest is the source itself.
    const still = await makeCopy(store, join(folder, 'backups'), new Date('2026-11-30T13:00:00Z'));
    expect(tables(join(folder, 'backups', still.file))).toEqual(tables(store));
  });

  it('that is damaged, of another program, of a newer Isle or over a database that is there is refused with a sentence', async () => {
    const store = join(folder, 'isle.db');
    const db = openDatabase(store);
    kept(db, 'Waves');
    db.$client.close();
    const bad = join(folder, 'bad.db');
    copyFileSync(store, bad);
    writeFileSync(bad, Buffer.concat([Buffer.from('SQLite format 3\0'), Buffer.alloc(9000, 7)]));
    expect(() => verifyCopy(bad)).toThrow(/damaged|malformed|not a database/);
    writeFileSync(bad, 'words');
    expect(() => verifyCopy(bad)).toThrow(/is no SQLite file/);
    rmSync(bad);
    const dangling = new Database(store);
    dangling.pragma('foreign_keys = OFF');
    dangling.exec("INSERT INTO revision VALUES ('nothing', 1, 'none', '{}', 2, '{}', 1)");
    dangling.close();
    await expect(makeCopy(store, join(folder, 'backups'))).rejects.toThrow(/rows refer to what is not there/);
    expect(readdirSync(join(folder, 'backups'))).toEqual([]);
    await expect(restoreCopy(store, store)).rejects.toThrow(/There is a database .* already/);
    expect(() => verifyCopy(join(folder, 'none.db'))).toThrow(/There is no file/);
  });

  it('goes when so many newer ones are kept; other files in the folder stay', () => {
    for (const day of [1, 2, 3, 4, 5])
      writeFileSync(join(folder, copyName(new Date(Date.UTC(2026, 10, day)))), 'x');
    writeFileSync(join(folder, 'holiday.jpg'), 'x');
    expect(rotateCopies(folder, 2)).toEqual(
      [3, 2, 1].map((day) => copyName(new Date(Date.UTC(2026, 10, day)))),
    );
    expect(listCopies(folder)).toHaveLength(2);
    expect(existsSync(join(folder, 'holiday.jpg'))).toBe(true);
  });
});

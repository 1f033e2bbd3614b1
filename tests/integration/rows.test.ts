import { afterEach, beforeEach, expect, it } from 'vitest';
import { openDatabase, type Db } from '../../src/lib/server/db/open';
import { shape } from '../../src/lib/server/db/schema';
import { packed, unpacked } from '../../src/lib/server/repo/layout-log';
import { Rows } from '../../src/lib/server/repo/rows';
import { freshShape } from '../../src/lib/core/recipe/layout';
import { laidOut, projectNamed } from '../support/studio';

/** What every save goes through: rows that are read and written by hand, and what leads back from a state. */
const rows = new Rows(shape);
let db: Db;
beforeEach(() => {
  db = openDatabase(':memory:');
  const box = { form: { kind: 'rectangle', radius: 0 } as const, x: 1, y: 2, width: 3, height: 4, fills: [] };
  laidOut(db, projectNamed(db, 'Job'), 'Sign', [freshShape({ id: 's', name: 'S', ...box })]);
});
afterEach(() => void db.$client.close());

it('are read as drizzle reads them, yes and no and nothing too', () => {
  expect(rows.where(db, 'id = ?', 's')).toEqual(db.select().from(shape).all());
  expect(rows.get(db, 'none')).toBeNull();
});

it('are written only where they differ, and only the columns that do', () => {
  const [held] = rows.where(db, 'id = ?', 's');
  const changes = (): unknown => db.$client.prepare('SELECT total_changes()').pluck().get();
  const before = changes();
  expect(rows.put(db, held!, rows.get(db, 's'))).toBe(false);
  expect(changes()).toBe(before);
  // What somebody else wrote meanwhile into another column is not written over.
  const stale = rows.get(db, 's');
  db.$client.prepare("UPDATE shape SET name = 'Other'").run();
  expect(rows.put(db, { ...held!, x: 7, locked: true, mask: null }, stale)).toBe(true);
  expect(rows.where(db, 'id = ?', 's')[0]).toEqual({ ...held, name: 'Other', x: 7, locked: true });
});

it('what leads back comes out as it went in, short or long', () => {
  for (const count of [0, 1, 200]) {
    const ids = Array.from({ length: count }, (_, at) => `shape ${at} “é”`);
    const kept = packed(JSON.stringify([{ do: 'order', ids }]));
    expect(unpacked(kept)).toEqual([{ do: 'order', ids }]);
    expect(typeof kept).toBe(count < 200 ? 'string' : 'object');
  }
});

import Database from 'better-sqlite3';
import { eq } from 'drizzle-orm';
import { describe, expect, it, vi } from 'vitest';
import { openDatabase } from './open';
import { preparer } from './preparing';
import { setting } from './schema';

describe('statements', () => {
  it('are prepared once, the latest few hundred are kept, and lists of values are not', () => {
    const client = new Database(':memory:');
    const prepare = vi.spyOn(client, 'prepare');
    const statement = preparer(client);
    expect(statement('SELECT 1')).toBe(statement('SELECT 1'));
    expect(prepare).toHaveBeenCalledTimes(1);
    const first = statement('SELECT 1');
    for (let index = 0; index < 399; index += 1) statement(`SELECT ${index}, 2`);
    expect(statement('SELECT 1')).toBe(first);
    for (let index = 0; index < 400; index += 1) statement(`SELECT ${index}, 3`);
    expect(statement('SELECT 1')).not.toBe(first);
    const long = `SELECT 1 /* ${'1, '.repeat(2000)} */`;
    expect(statement(long)).not.toBe(statement(long));
  });

  it('of drizzle are prepared once too, and go on after a failure, in a transaction, and when one is rolled back', () => {
    const db = openDatabase(':memory:');
    const prepare = vi.spyOn(db.$client, 'prepare');
    const put = (key: string) => db.insert(setting).values({ key, value: 'v' }).run();
    const value = (key: string) => db.select().from(setting).where(eq(setting.key, key)).get()?.value;
    put('a');
    expect(() => put('a')).toThrow(/UNIQUE/);
    expect(() =>
      db.transaction(() => {
        put('b');
        throw new Error('no');
      }),
    ).toThrow('no');
    db.transaction((tx) => tx.insert(setting).values({ key: 'c', value: 'v' }).run());
    expect(['a', 'b', 'c'].map(value)).toEqual(['v', undefined, 'v']);
    const times = (word: string) => prepare.mock.calls.filter(([sql]) => sql.startsWith(word)).length;
    expect([times('insert'), times('select')]).toEqual([1, 1]);
  });
});

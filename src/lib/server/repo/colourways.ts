import { and, asc, eq } from 'drizzle-orm';
import { fail, type Outcome } from '../../contract/failure';
import type { Colourway } from '../../core/colour/colourway';
import type { Tint } from '../../core/colour/tint';
import { LIMITS } from '../../core/recipe/limits';
import type { Db } from '../db/open';
import { colourway, fill } from '../db/schema';
import { note } from './context';
import { fillOf } from './fill-rows';
import { nameKey } from './names';
import { changing } from './patterns';
import { touching } from './layout-log';

/**
 * Replaces a pattern's colourways, in order. Uses refer to a colourway by its id and follow its colours; the uses of
 * one that is left out keep its colours as their own.
 */
export function saveColourways(
  db: Db,
  patternId: string,
  base: number,
  ways: readonly Colourway[],
): Outcome<{ version: number }> {
  return changing(db, patternId, base, '', (tx) => {
    const refused = problemOf(ways);
    if (refused) return refused;
    const held = tx
      .select()
      .from(colourway)
      .where(eq(colourway.patternId, patternId))
      .orderBy(asc(colourway.position))
      .all();
    const wanted = new Set(ways.map((way) => way.id));
    for (const row of held) if (!wanted.has(row.id)) removeColourway(tx, row);
    const known = new Set(held.map((row) => row.id));
    for (const [position, { id, name, colours }] of ways.entries()) {
      const columns = { name, position, colours: JSON.stringify(colours) };
      if (known.has(id))
        tx.update(colourway)
          .set(columns)
          .where(and(eq(colourway.id, id), eq(colourway.patternId, patternId)))
          .run();
      else {
        const foreign = tx.select({ id: colourway.id }).from(colourway).where(eq(colourway.id, id)).get();
        if (foreign)
          return fail(
            'invalid',
            'The colourway’s id belongs to another pattern; give it a new one.',
            'colourways',
          );
        tx.insert(colourway)
          .values({ id, studioId: tx.studio, patternId, ...columns })
          .run();
      }
    }
    note(tx, 'pattern.colourways', patternId);
    return null;
  });
}

function problemOf(ways: readonly Colourway[]): ReturnType<typeof fail> | null {
  if (ways.length > LIMITS.colourways)
    return fail('invalid', `A pattern holds at most ${LIMITS.colourways} colourways.`, 'colourways');
  const names = new Set<string>();
  for (const { name } of ways) {
    const key = nameKey(name);
    if (names.has(key))
      return fail(
        'name_taken',
        `There are two colourways named “${name}”; choose another name.`,
        'colourways',
      );
    names.add(key);
  }
  if (new Set(ways.map((way) => way.id)).size < ways.length)
    return fail('invalid', 'Two colourways have the same id; each needs its own.', 'colourways');
  return null;
}

function removeColourway(tx: Db, row: typeof colourway.$inferSelect): void {
  const users = eq(fill.colourwayId, row.id);
  const rows = tx.select().from(fill).where(users).all();
  const colours = JSON.parse(row.colours) as Record<string, Tint>;
  touching(tx, { fills: users }, () => {
    for (const one of rows) {
      const value = fillOf(one);
      if (value.kind !== 'pattern') continue;
      tx.update(fill)
        .set({ colourwayId: null, colours: JSON.stringify({ ...colours, ...value.colours }) })
        .where(eq(fill.id, one.id))
        .run();
    }
  });
  tx.delete(colourway).where(eq(colourway.id, row.id)).run();
}

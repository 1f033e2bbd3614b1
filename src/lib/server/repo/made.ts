import { and, eq } from 'drizzle-orm';
import { madeAsset, type MadeBy } from '../../core/recipe/made';
import type { Recipe } from '../../core/recipe/recipe';
import type { Db } from '../db/open';
import { madeFile, madePicture } from '../db/schema';

/** The number that stands for a pattern's draft. */
export const DRAFT = 0;

/** Notes by which steps the picture of a revision, or of the draft, is made; nothing for other kinds of recipe. */
export function noteMade(tx: Db, patternId: string, number: number, recipe: Recipe): void {
  if (recipe.kind !== 'pictured') return;
  const { pictured, lay } = recipe;
  const own = { hash: madeAsset(recipe), steps: JSON.stringify({ pictured, lay } satisfies MadeBy) };
  tx.insert(madePicture)
    .values({ patternId, number, ...own })
    .onConflictDoUpdate({ target: [madePicture.patternId, madePicture.number], set: own })
    .run();
}

/** The steps that make a picture, or `null` where it is none that is made. */
export function stepsOf(db: Db, hash: string): MadeBy | null {
  const row = db
    .select({ steps: madePicture.steps })
    .from(madePicture)
    .where(eq(madePicture.hash, hash))
    .limit(1)
    .get();
  return row ? (JSON.parse(row.steps) as MadeBy) : null;
}

/** The name of the picture of a revision, or of the draft, where it is one that is made and was not made yet. */
export function missingOf(db: Db, patternId: string, number: number): string | null {
  const row = db
    .select({ hash: madePicture.hash, made: madeFile.hash })
    .from(madePicture)
    .leftJoin(madeFile, eq(madeFile.hash, madePicture.hash))
    .where(and(eq(madePicture.patternId, patternId), eq(madePicture.number, number)))
    .get();
  return row && row.made === null ? row.hash : null;
}

/** What was made under a name, as PNG bytes; `null` where it was not made yet. */
export function madeBytes(db: Db, hash: string): Buffer | null {
  return (
    db.select({ bytes: madeFile.bytes }).from(madeFile).where(eq(madeFile.hash, hash)).get()?.bytes ?? null
  );
}

/** Keeps what was made. */
export function keepMade(db: Db, hash: string, bytes: Buffer): void {
  db.insert(madeFile).values({ hash, bytes, createdAt: Date.now() }).onConflictDoNothing().run();
}

/** Lets go of what was made by steps that nothing has any more. */
export const clearMade = (db: Db): number =>
  db.$client.prepare('DELETE FROM made_file WHERE hash NOT IN (SELECT hash FROM made_picture)').run().changes;

import { createHash } from 'node:crypto';
import { and, asc, eq, like } from 'drizzle-orm';
import type { StudioFont } from '../../contract/data';
import { done, fail, type Outcome } from '../../contract/failure';
import { LIMITS } from '../../core/recipe/limits';
import type { Db } from '../db/open';
import { font, layout, shape } from '../db/schema';
import { note, writing } from './context';

const { id, name, licence, createdAt } = font;

/** The fonts that people brought, by name. */
export const listFonts = (db: Db): StudioFont[] =>
  db
    .select({ id, name, licence, createdAt })
    .from(font)
    .where(eq(font.studioId, db.studio))
    .orderBy(asc(name), asc(id))
    .all();

/** Keeps a font that was checked; one that is here already gets the licence that is said now. */
export function addFont(db: Db, of: { name: string; licence: string; bytes: Buffer }): Outcome<StudioFont> {
  const own = `own-${createHash('sha256').update(of.bytes).digest('hex').slice(0, 24)}`;
  return writing(db, { what: 'font', name: of.name }, (tx): Outcome<StudioFont> => {
    const all = listFonts(tx);
    const held = all.find((one) => one.id === own);
    if (held) {
      tx.update(font).set({ licence: of.licence }).where(eq(font.id, own)).run();
      return done({ ...held, licence: of.licence });
    }
    if (all.length >= LIMITS.studioFonts)
      return fail('too_large', `A studio keeps at most ${LIMITS.studioFonts} fonts; take one out first.`);
    const row = { id: own, name: of.name, licence: of.licence, createdAt: Date.now() };
    tx.insert(font)
      .values({ ...row, studioId: tx.studio, bytes: of.bytes })
      .run();
    note(tx, 'font.added', own);
    return done(row);
  });
}

/** Takes a font out that no words of a layout are set in. */
export function removeFont(db: Db, of: string): Outcome<{ id: string }> {
  return writing(db, { what: 'font', name: '' }, (tx): Outcome<{ id: string }> => {
    const held = listFonts(tx).find((one) => one.id === of);
    if (!held) return noFont();
    const using = tx
      .selectDistinct({ name: layout.name })
      .from(shape)
      .innerJoin(layout, eq(layout.id, shape.layoutId))
      .where(like(shape.form, `%"font":"${of}"%`))
      .limit(4)
      .all()
      .map((one) => `“${one.name}”`);
    if (using.length > 0)
      return fail(
        'in_use',
        `Words are set in “${held.name}” in ${using.slice(0, 3).join(', ')}${using.length > 3 ? ' and others' : ''}; choose another font there first.`,
      );
    tx.delete(font).where(eq(font.id, of)).run();
    note(tx, 'font.removed', of);
    return done({ id: of });
  });
}

/** The bytes of a font as TrueType or OpenType; `null` where there is none. */
export function fontBytes(db: Db, of: string): Buffer | null {
  const row = db
    .select({ bytes: font.bytes })
    .from(font)
    .where(and(eq(font.id, of), eq(font.studioId, db.studio)))
    .get();
  return row?.bytes ?? null;
}

export const noFont = (): ReturnType<typeof fail> =>
  fail('not_found', 'There is no such font; it may have been taken out.', 'id');

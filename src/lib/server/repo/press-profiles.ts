import { createHash } from 'node:crypto';
import { and, asc, eq } from 'drizzle-orm';
import type { PressProfile } from '../../contract/data';
import { done, fail, type Outcome } from '../../contract/failure';
import { LIMITS } from '../../core/recipe/limits';
import type { Db } from '../db/open';
import { pressProfile, project } from '../db/schema';
import { note, writing } from './context';

const { id, name, createdAt } = pressProfile;

/** The press profiles of the studio, by name. */
export const listProfiles = (db: Db): PressProfile[] =>
  db
    .select({ id, name, createdAt })
    .from(pressProfile)
    .where(eq(pressProfile.studioId, db.studio))
    .orderBy(asc(name), asc(id))
    .all();

/** Keeps a profile that was checked; one that is there already stays as it is. */
export function addProfile(db: Db, of: { name: string; bytes: Buffer }): Outcome<PressProfile> {
  const hash = createHash('sha256').update(of.bytes).digest('hex');
  return writing(db, { what: 'press profile', name: of.name }, (tx): Outcome<PressProfile> => {
    const all = listProfiles(tx);
    const held = all.find((one) => one.id === hash);
    if (held) return done(held);
    if (all.length >= LIMITS.pressProfiles)
      return fail(
        'too_large',
        `A studio keeps at most ${LIMITS.pressProfiles} press profiles; take one out that no project uses.`,
      );
    const row = { id: hash, name: of.name, createdAt: Date.now() };
    tx.insert(pressProfile)
      .values({ ...row, studioId: tx.studio, bytes: of.bytes })
      .run();
    note(tx, 'press.added', hash);
    return done(row);
  });
}

/** Takes a profile out that no project uses. */
export function removeProfile(db: Db, of: string): Outcome<{ id: string }> {
  return writing(db, { what: 'press profile', name: '' }, (tx): Outcome<{ id: string }> => {
    const held = listProfiles(tx).find((one) => one.id === of);
    if (!held) return noProfile();
    const using = tx
      .select({ name: project.name, press: project.press })
      .from(project)
      .where(eq(project.studioId, tx.studio))
      .all()
      .filter(({ press }) => press?.includes(of))
      .map((one) => `“${one.name}”`);
    if (using.length > 0)
      return fail(
        'in_use',
        `“${held.name}” is the press of ${using.slice(0, 3).join(', ')}${using.length > 3 ? ` and ${using.length - 3} more` : ''}; choose another there first.`,
      );
    tx.delete(pressProfile).where(eq(pressProfile.id, of)).run();
    note(tx, 'press.removed', of);
    return done({ id: of });
  });
}

export const hasProfile = (db: Db, of: string): boolean => profileBytes(db, of) !== null;

/** The bytes of a profile; `null` where there is none. */
export function profileBytes(db: Db, of: string): Buffer | null {
  const row = db
    .select({ bytes: pressProfile.bytes })
    .from(pressProfile)
    .where(and(eq(pressProfile.id, of), eq(pressProfile.studioId, db.studio)))
    .get();
  return row?.bytes ?? null;
}

const noProfile = (): ReturnType<typeof fail> =>
  fail('not_found', 'There is no such press profile; it may have been taken out.', 'id');

import type { NewStrikeOff, StrikeOffSave } from '../../contract/given';
import { and, desc, eq } from 'drizzle-orm';
import type { StrikeOff } from '../../contract/data';
import { done, fail, type Outcome } from '../../contract/failure';
import { migrateFill } from '../../core/recipe/migrate';
import { mapFills } from '../../core/recipe/layout';
import type { StrikeSheet } from '../../core/recipe/strike-off';
import type { Db } from '../db/open';
import { project, strikeOff } from '../db/schema';
import { newId, note, stale, writing } from './context';

type Row = typeof strikeOff.$inferSelect;

/** The strike-offs of a project, newest first. */
export function listStrikeOffs(db: Db, projectId: string): StrikeOff[] {
  return db
    .select()
    .from(strikeOff)
    .where(and(eq(strikeOff.projectId, projectId), eq(strikeOff.studioId, db.studio)))
    .orderBy(desc(strikeOff.updatedAt))
    .all()
    .map(strikeOffOf);
}

export function getStrikeOff(db: Db, id: string): Outcome<StrikeOff> {
  const row = db.select().from(strikeOff).where(eq(strikeOff.id, id)).get();
  return row ? done(strikeOffOf(row)) : noStrikeOff(id);
}

/** Keeps a sheet with a project, under a name. */
export function keepStrikeOff(db: Db, projectId: string, input: NewStrikeOff): Outcome<StrikeOff> {
  return writing(db, { what: 'strike-off', name: input.name }, (tx): Outcome<StrikeOff> => {
    const owner = tx.select({ id: project.id }).from(project).where(eq(project.id, projectId)).get();
    if (!owner) return fail('not_found', `There is no project with the id “${projectId}”.`, 'id');
    const id = newId();
    const now = Date.now();
    const { name, layoutId, sheet } = input;
    tx.insert(strikeOff)
      .values({
        ...{ id, studioId: tx.studio, projectId, layoutId, name },
        shapeId: sheet.shape.id,
        sheet: JSON.stringify(sheet),
        createdAt: now,
        updatedAt: now,
      })
      .run();
    note(tx, 'strike-off.kept', id);
    return getStrikeOff(tx, id);
  });
}

/** Gives a kept sheet another name or other try-outs. */
export function saveStrikeOff(db: Db, id: string, input: StrikeOffSave): Outcome<StrikeOff> {
  return writing(db, { what: 'strike-off', name: input.name }, (tx): Outcome<StrikeOff> => {
    const row = tx.select().from(strikeOff).where(eq(strikeOff.id, id)).get();
    if (!row) return noStrikeOff(id);
    if (row.version !== input.base) return stale(`“${row.name}”`, input.base, row.version, strikeOffOf(row));
    tx.update(strikeOff)
      .set({
        name: input.name,
        sheet: JSON.stringify(input.sheet),
        version: row.version + 1,
        updatedAt: Date.now(),
      })
      .where(eq(strikeOff.id, id))
      .run();
    return getStrikeOff(tx, id);
  });
}

export function removeStrikeOff(db: Db, id: string): Outcome<{ id: string }> {
  const { changes } = db.delete(strikeOff).where(eq(strikeOff.id, id)).run();
  if (changes === 0) return noStrikeOff(id);
  note(db, 'strike-off.removed', id);
  return done({ id });
}

function strikeOffOf(row: Row): StrikeOff {
  const { id, projectId, layoutId, name, version, updatedAt } = row;
  const sheet = JSON.parse(row.sheet) as StrikeSheet;
  const shape = mapFills(sheet.shape, (fill) => migrateFill(fill));
  return { id, projectId, layoutId, name, version, updatedAt, sheet: { ...sheet, shape } };
}

const noStrikeOff = (id: string): ReturnType<typeof fail> =>
  fail('not_found', `There is no strike-off with the id “${id}”; it may have been taken away.`, 'id');

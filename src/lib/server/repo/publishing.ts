import { and, asc, eq, inArray, isNull, sql } from 'drizzle-orm';
import type { PublishPreview, UseInPlace } from '../../contract/data';
import { done, fail, type Outcome } from '../../contract/failure';
import type { Recipe } from '../../core/recipe/recipe';
import { STUDIO, type Db } from '../db/open';
import { fill, layout, pattern, project, revision, shape } from '../db/schema';
import { note, writing } from './context';
import { shapeOf } from './layouts';
import {
  changing,
  createPattern,
  factsOf,
  findRow,
  getPattern,
  noPattern,
  recipeAt,
  stored,
} from './patterns';

/**
 * Makes the draft the next revision. Every use that follows the pattern shows it from now on, but for the fills of
 * `hold`, which are held at the revision that they show now, in the same transaction.
 */
export function publish(
  db: Db,
  id: string,
  base: number,
  hold: readonly string[] = [],
): Outcome<{ version: number; revision: number; held: number }> {
  let number = 0;
  let held = 0;
  const outcome = changing(db, id, base, '', (tx, row) => {
    if (row.draft === null)
      return fail(
        'invalid',
        `“${row.name}” has no changes since revision ${row.newest}; there is nothing to publish.`,
      );
    number = row.newest + 1;
    held = holdUses(tx, id, hold, row.newest);
    addRevision(tx, id, number, stored(row.draft));
    tx.update(pattern).set({ draft: null, newest: number }).where(eq(pattern.id, id)).run();
    note(tx, 'pattern.published', id, { revision: number, held });
    return null;
  });
  return outcome.ok ? done({ version: outcome.value.version, revision: number, held }) : outcome;
}

/** Holds the following uses among `fills` at a revision; the layouts they stand in get a new version. */
function holdUses(tx: Db, id: string, fills: readonly string[], at: number): number {
  if (fills.length === 0 || at < 1) return 0;
  const mine = and(eq(fill.patternId, id), inArray(fill.id, [...fills]), isNull(fill.heldRevision));
  const layouts = tx
    .selectDistinct({ id: shape.layoutId })
    .from(fill)
    .innerJoin(shape, eq(shape.id, fill.shapeId))
    .where(mine)
    .all();
  const { changes } = tx.update(fill).set({ heldRevision: at }).where(mine).run();
  if (layouts.length > 0)
    tx.update(layout)
      .set({ version: sql`${layout.version} + 1`, updatedAt: Date.now() })
      .where(
        inArray(
          layout.id,
          layouts.map((row) => row.id),
        ),
      )
      .run();
  return changes;
}

function addRevision(tx: Db, id: string, number: number, recipe: Recipe): void {
  tx.insert(revision)
    .values({
      patternId: id,
      number,
      studioId: STUDIO,
      recipe: JSON.stringify(recipe),
      recipeVersion: recipe.version,
      metrics: JSON.stringify(factsOf(recipe)),
      createdAt: Date.now(),
    })
    .run();
}

/** What publishing would change: every use with its shape, and the recipes that are shown now. */
export function publishPreview(db: Db, id: string): Outcome<PublishPreview> {
  const row = findRow(db, id);
  if (!row) return noPattern(id);
  const found = db
    .select({ fill, shape, layout, project })
    .from(fill)
    .innerJoin(shape, eq(shape.id, fill.shapeId))
    .innerJoin(layout, eq(layout.id, shape.layoutId))
    .innerJoin(project, eq(project.id, layout.projectId))
    .where(and(eq(fill.patternId, id), isNull(layout.archivedAt), isNull(project.archivedAt)))
    .orderBy(asc(project.nameKey), asc(layout.nameKey), asc(shape.position))
    .all();
  const uses = found.map((one): UseInPlace => ({
    fillId: one.fill.id,
    held: one.fill.heldRevision,
    shape: shapeOf(one.shape, one.fill),
    layoutId: one.layout.id,
    layoutName: one.layout.name,
    projectId: one.project.id,
    projectName: one.project.name,
  }));
  const recipes: Record<number, Recipe> = {};
  for (const number of new Set([row.newest, ...uses.flatMap((use) => use.held ?? [])])) {
    const recipe = recipeAt(db, id, number);
    if (recipe) recipes[number] = recipe;
  }
  return done({ newest: row.newest, recipes, uses });
}

/**
 * Makes another pattern of a recipe, published at once. With `takesDraft` the recipe was the unfinished work on the
 * pattern that it comes from, which goes back to what is published.
 */
export function keepAsNew(
  db: Db,
  from: string,
  input: { name: string; recipe: Recipe; takesDraft: boolean },
): Outcome<{ id: string; version: number }> {
  const row = findRow(db, from);
  if (!row) return noPattern(from);
  return writing(
    db,
    { what: 'pattern', name: input.name },
    (tx): Outcome<{ id: string; version: number }> => {
      const { description } = row;
      const made = createPattern(tx, { name: input.name, description, recipe: input.recipe });
      if (!made.ok) return made;
      const { id } = made.value;
      addRevision(tx, id, 1, input.recipe);
      tx.update(pattern).set({ draft: null, newest: 1 }).where(eq(pattern.id, id)).run();
      if (input.takesDraft && row.newest > 0 && row.draft !== null)
        tx.update(pattern)
          .set({ draft: null, version: row.version + 1, updatedAt: Date.now() })
          .where(eq(pattern.id, from))
          .run();
      note(tx, 'pattern.kept_as_new', id, { from });
      return done({ id, version: made.value.version });
    },
  );
}

/** Publishes an older revision again, as the newest. A draft that is under way would be lost, so it refuses. */
export function restoreRevision(
  db: Db,
  id: string,
  base: number,
  number: number,
): Outcome<{ version: number; revision: number }> {
  const recipe = recipeAt(db, id, number);
  const row = findRow(db, id);
  if (!row) return noPattern(id);
  if (!recipe) return fail('not_found', `“${row.name}” has no revision ${number}.`, 'number');
  if (row.draft !== null)
    return fail(
      'in_use',
      `“${row.name}” has changes on the bench that are not published; publish them or keep them as new first.`,
      'number',
    );
  let next = 0;
  const outcome = changing(db, id, base, '', (tx, now) => {
    next = now.newest + 1;
    addRevision(tx, id, next, recipe);
    tx.update(pattern).set({ newest: next }).where(eq(pattern.id, id)).run();
    note(tx, 'pattern.restored_revision', id, { from: number, revision: next });
    return null;
  });
  return outcome.ok ? done({ version: outcome.value.version, revision: next }) : outcome;
}

/** Forgets unfinished work: the pattern goes back to what is published. */
export function dropDraft(db: Db, id: string, base: number): Outcome<{ version: number }> {
  const found = getPattern(db, id);
  if (!found.ok) return found;
  if (found.value.newest === 0)
    return fail('invalid', `“${found.value.name}” was never published; archive it instead.`);
  return changing(db, id, base, '', (tx) => {
    tx.update(pattern).set({ draft: null }).where(eq(pattern.id, id)).run();
    return null;
  });
}

import type { KeptAsNew } from '../../contract/given';
import { and, asc, eq, isNotNull, isNull } from 'drizzle-orm';
import type { PublishPreview, UseInPlace } from '../../contract/data';
import { done, fail, failWith, type Outcome } from '../../contract/failure';
import { followRecipe, followShape } from '../../core/recipe/links';
import type { Recipe } from '../../core/recipe/recipe';
import type { Db } from '../db/open';
import { colourway, fill, layout, pattern, project, shape } from '../db/schema';
import { seen } from './access';
import { among, newId, note, writing } from './context';
import { colourwaysOf } from './colourway-rows';
import { touching } from './layout-log';
import { shapeOf } from './layouts';
import { paletteLinks } from './links';
import { addRevision, findRow, insertPublished } from './pattern-rows';
import { changing, getPattern, noPattern, recipeAt, storedAt } from './patterns';
import { indexWords } from './search-index';
import { draftKey, problemsOf, readStored } from './stored';

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
    const read = readStored(tx, row.draft, draftKey(id, row.version));
    if (!read.ok) return read;
    const recipe = read.value;
    number = row.newest + 1;
    held = holdUses(tx, id, hold, row.newest);
    addRevision(tx, id, number, recipe);
    tx.update(pattern).set({ draft: null, newest: number }).where(eq(pattern.id, id)).run();
    note(tx, 'pattern.published', id, { revision: number, held });
    return null;
  });
  return outcome.ok ? done({ version: outcome.value.version, revision: number, held }) : outcome;
}

/** Holds the following uses among `fills` at a revision; the layouts they stand in get a new version. */
function holdUses(tx: Db, id: string, fills: readonly string[], at: number): number {
  if (fills.length === 0 || at < 1) return 0;
  const mine = and(eq(fill.patternId, id), among(fill.id, fills), isNull(fill.heldRevision));
  let count = 0;
  touching(tx, { fills: mine }, () => {
    count = tx.update(fill).set({ heldRevision: at }).where(mine).run().changes;
  });
  return count;
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
    .where(
      and(
        eq(fill.patternId, id),
        isNull(layout.archivedAt),
        isNull(project.archivedAt),
        seen(db, project.id),
      ),
    )
    .orderBy(asc(project.nameKey), asc(layout.nameKey), asc(shape.position))
    .all();
  const links = paletteLinks(db);
  const uses = found.map((one): UseInPlace => ({
    fillId: one.fill.id,
    held: one.fill.heldRevision,
    shape: followShape(shapeOf(one.shape, [one.fill]), links),
    layoutId: one.layout.id,
    layoutName: one.layout.name,
    projectId: one.project.id,
    projectName: one.project.name,
  }));
  const recipes: Record<number, Recipe> = {};
  for (const number of new Set([row.newest, ...uses.flatMap((use) => use.held ?? [])])) {
    const recipe = recipeAt(db, id, number);
    if (recipe) recipes[number] = followRecipe(recipe, links);
  }
  const colourways = colourwaysOf(db, [id], links).get(id) ?? [];
  return done({ newest: row.newest, recipes, colourways, uses });
}

/**
 * Makes another pattern of a recipe, published at once. With `takesDraft` the recipe was the unfinished work on the
 * pattern that it comes from, which goes back to what is published.
 */
export function keepAsNew(
  db: Db,
  from: string,
  input: Required<KeptAsNew>,
): Outcome<{ id: string; version: number }> {
  const row = findRow(db, from);
  if (!row) return noPattern(from);
  const problems = problemsOf(input.recipe);
  if (problems.length > 0) return failWith(problems);
  return writing(
    db,
    { what: 'pattern', name: input.name },
    (tx): Outcome<{ id: string; version: number }> => {
      const { description, author, source, licence, attribution } = row;
      const id = newId();
      insertPublished(
        tx,
        { id, name: input.name, description, recipe: input.recipe },
        { author, source, licence, attribution },
      );
      copyKeeping(tx, from, id);
      indexWords(tx, id);
      if (input.takesDraft && row.newest > 0 && row.draft !== null)
        tx.update(pattern)
          .set({ draft: null, version: row.version + 1, updatedAt: Date.now() })
          .where(eq(pattern.id, from))
          .run();
      note(tx, 'pattern.kept_as_new', id, { from });
      return done({ id, version: 1 });
    },
  );
}

/** Gives a pattern the tags, collections and colourways of another. */
function copyKeeping(tx: Db, from: string, to: string): void {
  const { $client } = tx;
  $client
    .prepare('INSERT INTO pattern_tag SELECT ?, tag, tag_key FROM pattern_tag WHERE pattern_id = ?')
    .run(to, from);
  $client
    .prepare(
      'INSERT INTO collection_pattern SELECT collection_id, ? FROM collection_pattern WHERE pattern_id = ?',
    )
    .run(to, from);
  const ways = tx.select().from(colourway).where(eq(colourway.patternId, from)).all();
  for (const way of ways)
    tx.insert(colourway)
      .values({ ...way, id: newId(), patternId: to })
      .run();
}

/** Holds uses at the revision that they show, or lets held ones follow the newest again. */
export function setHeld(
  db: Db,
  id: string,
  fills: readonly string[],
  held: boolean,
): Outcome<{ fills: number }> {
  return writing(db, { what: 'pattern', name: '' }, (tx): Outcome<{ fills: number }> => {
    const row = findRow(tx, id);
    if (!row) return noPattern(id);
    if (held) return done({ fills: holdUses(tx, id, fills, row.newest) });
    const mine = and(eq(fill.patternId, id), among(fill.id, fills), isNotNull(fill.heldRevision));
    let count = 0;
    touching(tx, { fills: mine }, () => {
      count = tx.update(fill).set({ heldRevision: null }).where(mine).run().changes;
    });
    return done({ fills: count });
  });
}

/** Publishes an older revision again, as the newest. A draft that is under way would be lost, so it refuses. */
export function restoreRevision(
  db: Db,
  id: string,
  base: number,
  number: number,
): Outcome<{ version: number; revision: number }> {
  const row = findRow(db, id);
  if (!row) return noPattern(id);
  const read = storedAt(db, id, number);
  if (!read.ok) return read;
  const recipe = read.value;
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

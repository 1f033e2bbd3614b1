import type { PatternPatch } from '../../contract/given';
import { and, asc, desc, eq, inArray, isNull, sql } from 'drizzle-orm';
import type { PatternDetail, PatternForUse, PatternSummary, PatternUse } from '../../contract/data';
import { done, fail, failWith, type Outcome } from '../../contract/failure';
import type { Colourway } from '../../core/colour/colourway';
import type { Recipe } from '../../core/recipe/recipe';
import { followRecipe } from '../../core/recipe/links';
import type { Db } from '../db/open';
import { fill, layout, pattern, project, revision, shape } from '../db/schema';
import { setCollections, setTags } from './collections';
import { colourwaysOf } from './colourway-rows';
import { seen } from './access';
import { newId, note, stale, writing } from './context';
import { DRAFT, noteMade } from './made';
import { paletteLinks } from './links';
import { findRow, indexFacts, insertDraft, type PatternRow } from './pattern-rows';
import { statement } from './rows';
import { indexWords } from './search-index';
import { forgetWords } from './search-words';
import { draftKey, problemsOf, readStored, rememberSound, revisionKey } from './stored';
import { summariesOf } from './summaries';
import { nameKey } from './names';

/** One pattern with its newest recipe, draft, revisions and uses. */
export function getPattern(db: Db, id: string): Outcome<PatternDetail> {
  const row = findRow(db, id);
  if (!row) return noPattern(id);
  const [summary] = summariesOf(db, [id]);
  const links = paletteLinks(db);
  const newest = row.newest > 0 ? storedAt(db, id, row.newest) : null;
  const revisions = db
    .select({ number: revision.number, createdAt: revision.createdAt })
    .from(revision)
    .where(eq(revision.patternId, id))
    .orderBy(desc(revision.number))
    .all();
  const draft = row.draft === null ? null : readStored(db, row.draft, draftKey(id, row.version));
  const followed = (read: Outcome<Recipe> | null): Recipe | null =>
    read?.ok ? followRecipe(read.value, links) : null;
  const fault = (read: Outcome<Recipe> | null): string | null =>
    read && !read.ok ? read.failure.message : null;
  const colourways = colourwaysOf(db, [id], links).get(id) ?? [];
  return done({
    ...(summary as PatternSummary),
    recipe: followed(newest),
    draft: followed(draft),
    faults: { recipe: fault(newest), draft: fault(draft) },
    colourways,
    revisions,
    usedIn: usesOf(db, id),
  });
}

/** The recipe of one revision as it was published; a sentence where it is not there or cannot be shown. */
export function storedAt(db: Db, id: string, number: number): Outcome<Recipe> {
  const row = db
    .select({ recipe: revision.recipe })
    .from(revision)
    .where(and(eq(revision.patternId, id), eq(revision.number, number)))
    .get();
  return row
    ? readStored(db, row.recipe, revisionKey(id, number))
    : fail('not_found', `There is no revision ${number} of this pattern.`, 'number');
}

/** The recipe of one revision as it was published, or `null`. */
export function recipeAt(db: Db, id: string, number: number): Recipe | null {
  const read = storedAt(db, id, number);
  return read.ok ? read.value : null;
}

/** What a sample strip shows: a revision or the draft, its colours as they are now, and the colourway asked for. */
export function shownForSwatch(
  db: Db,
  id: string,
  number: number | 'draft',
  colourwayId: string | null,
): Outcome<{ name: string; recipe: Recipe; way: Colourway | null }> {
  const row = findRow(db, id);
  if (!row) return noPattern(id);
  const read =
    number !== 'draft'
      ? storedAt(db, id, number)
      : row.draft === null
        ? fail('not_found', `“${row.name}” has no draft.`, 'number')
        : readStored(db, row.draft, draftKey(id, row.version));
  if (!read.ok) return read;
  const links = paletteLinks(db);
  const ways = colourwayId === null ? [] : (colourwaysOf(db, [id], links).get(id) ?? []);
  const way = ways.find((one) => one.id === colourwayId) ?? null;
  if (colourwayId !== null && !way)
    return fail('not_found', `“${row.name}” has no such colourway.`, 'colourway');
  return done({ name: row.name, recipe: followRecipe(read.value, links), way });
}

/** The number of a pattern's newest revision; 0 where there is none. */
export const newestOf = (db: Db, id: string): number => findRow(db, id)?.newest ?? 0;

/** Every place where a pattern is used, in layouts that are not archived. */
export function usesOf(db: Db, id: string): PatternUse[] {
  return db
    .select({
      fillId: fill.id,
      shapeId: shape.id,
      shapeName: shape.name,
      layoutId: layout.id,
      layoutName: layout.name,
      projectId: project.id,
      projectName: project.name,
      held: fill.heldRevision,
      scaleX: fill.scaleX,
      scaleY: fill.scaleY,
      rotation: fill.rotation,
    })
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
}

/** A new pattern with a draft and no revision yet. */
export function createPattern(
  db: Db,
  input: { name: string; description?: string; recipe: Recipe; id?: string },
): Outcome<{ id: string; version: number }> {
  const problems = problemsOf(input.recipe);
  if (problems.length > 0) return failWith(problems);
  return writing(db, { what: 'pattern', name: input.name }, (tx) => {
    const { id = newId(), name, description = '', recipe } = input;
    insertDraft(tx, { id, name, description, recipe });
    indexWords(tx, id);
    note(tx, 'pattern.created', id);
    return done({ id, version: 1 });
  });
}

/** Keeps work in progress. Uses go on showing the newest revision. */
export function saveDraft(db: Db, id: string, base: number, recipe: Recipe): Outcome<{ version: number }> {
  const problems = problemsOf(recipe);
  if (problems.length > 0) return failWith(problems);
  return changing(db, id, base, '', (tx, row) => {
    tx.update(pattern)
      .set({ draft: JSON.stringify(recipe) })
      .where(eq(pattern.id, id))
      .run();
    if (row.newest === 0) indexFacts(tx, id, recipe);
    noteMade(tx, id, DRAFT, recipe);
    rememberSound(tx, draftKey(id, base + 1));
    return null;
  });
}

/** Changes name, description, tags, collections or credit; uses refer to the id, so none changes. */
export function patchPattern(
  db: Db,
  id: string,
  base: number,
  patch: PatternPatch,
): Outcome<{ version: number }> {
  const { name, description, tags, collections, credit } = patch;
  // Stock may be tagged and collected: that is the studio's own order and changes nothing of the pattern.
  const stockToo = name === undefined && description === undefined && credit === undefined;
  const change: Change = (tx, row) => {
    tx.update(pattern)
      .set({
        ...(name === undefined ? {} : { name }),
        ...(description === undefined ? {} : { description }),
        ...credit,
        nameKey: nameKey(name ?? row.name),
      })
      .where(eq(pattern.id, id))
      .run();
    if (tags) setTags(tx, id, tags);
    const missing = collections && setCollections(tx, id, collections);
    if (missing) return missing;
    indexWords(tx, id);
    if (name !== undefined && name !== row.name)
      note(tx, 'pattern.renamed', id, { from: row.name, to: name });
    else note(tx, 'pattern.described', id);
    return null;
  };
  return changing(db, id, base, name ?? '', change, { stockToo });
}

/** Puts a pattern into the archive or takes it out. Uses keep showing it. */
export function setPatternArchived(db: Db, id: string, archived: boolean): Outcome<{ version: number }> {
  const row = findRow(db, id);
  if (!row) return noPattern(id);
  return changing(db, id, row.version, '', (tx) => {
    tx.update(pattern)
      .set({ archivedAt: archived ? Date.now() : null })
      .where(eq(pattern.id, id))
      .run();
    note(tx, archived ? 'pattern.archived' : 'pattern.restored', id);
    return null;
  });
}

/** What keeps a pattern from being deleted for good: uses in layouts, archived ones counted. */
export function usesAnywhere(db: Db, id: string): number {
  return statement(db, 'SELECT count(*) FROM fill WHERE pattern_id = ?').pluck().get(id) as number;
}

/** Deletes an archived pattern with all its revisions for good. Only where no fill uses it, and only by its very name. */
export function deletePattern(db: Db, id: string, name: string): Outcome<{ id: string }> {
  return writing(db, { what: 'pattern', name: '' }, (tx): Outcome<{ id: string }> => {
    const row = findRow(tx, id);
    if (!row) return noPattern(id);
    if (row.stock) return protectedStock(row.name);
    if (row.archivedAt === null)
      return fail('invalid', `“${row.name}” is in the library; archive it before deleting it for good.`);
    if (name !== row.name)
      return fail('invalid', `Type the name “${row.name}” to delete it; “${name}” was given.`, 'name');
    const uses = usesAnywhere(tx, id);
    if (uses > 0)
      return fail(
        'in_use',
        `“${row.name}” is used by ${uses === 1 ? 'one shape' : `${uses} shapes`}, archived layouts counted; replace it there first.`,
      );
    tx.delete(pattern).where(eq(pattern.id, id)).run();
    forgetWords(db);
    note(tx, 'pattern.deleted', id, { name: row.name });
    return done({ id });
  });
}

/** Patterns with the recipes that uses need: the newest, and those at which some of `held` are held. */
export function patternsForUse(
  db: Db,
  ids: readonly string[],
  held: ReadonlyMap<string, ReadonlySet<number>>,
): PatternForUse[] {
  if (ids.length === 0) return [];
  const rows = db
    .select({
      ...{ id: pattern.id, name: pattern.name, newest: pattern.newest, archivedAt: pattern.archivedAt },
      ...{ author: pattern.author, source: pattern.source, licence: pattern.licence },
      attribution: pattern.attribution,
      hasDraft: sql<number>`${pattern.draft} is not null`,
    })
    .from(pattern)
    .where(inArray(pattern.id, [...ids]))
    .all();
  const links = paletteLinks(db);
  const ways = colourwaysOf(db, ids, links);
  return rows.map(({ author, source, licence, attribution, hasDraft, ...row }) => {
    const recipes: Record<number, Recipe> = {};
    const faults: Record<number, string> = {};
    for (const number of new Set([row.newest, ...(held.get(row.id) ?? [])])) {
      const read = storedAt(db, row.id, number);
      if (read.ok) recipes[number] = followRecipe(read.value, links);
      else if (read.failure.code !== 'not_found') faults[number] = read.failure.message;
    }
    const credit = { author, source, licence, attribution };
    return {
      ...{ ...row, hasDraft: hasDraft === 1, credit, recipes, faults },
      colourways: ways.get(row.id) ?? [],
    };
  });
}

export type Change = (tx: Db, row: PatternRow) => ReturnType<typeof fail> | null;

/** One guarded change of a pattern: refused when stale, else the version goes up by one. */
export function changing(
  db: Db,
  id: string,
  base: number,
  name: string,
  change: Change,
  { stockToo = false } = {},
): Outcome<{ version: number }> {
  const outcome = writing(db, { what: 'pattern', name }, (tx): Outcome<{ version: number }> => {
    const row = findRow(tx, id);
    if (!row) return noPattern(id);
    if (row.version !== base) return stale(`“${row.name}”`, base, row.version, undefined);
    if (row.stock && !stockToo) return protectedStock(row.name);
    const refused = change(tx, row);
    if (refused) return refused;
    const version = row.version + 1;
    tx.update(pattern).set({ version, updatedAt: Date.now() }).where(eq(pattern.id, id)).run();
    return done({ version });
  });
  if (outcome.ok || outcome.failure.code !== 'stale') return outcome;
  const current = getPattern(db, id);
  return { ok: false, failure: { ...outcome.failure, current: current.ok ? current.value : undefined } };
}

/** Stock is never changed: what others rely on stays. */
export function protectedStock(name: string): ReturnType<typeof fail> {
  return fail(
    'protected',
    `“${name}” is stock and stays as it is; keep it as new under another name to change it.`,
  );
}

export function noPattern(id: string): ReturnType<typeof fail> {
  return fail('not_found', `There is no pattern with the id “${id}”.`, 'id');
}

import {
  and,
  asc,
  count,
  countDistinct,
  desc,
  eq,
  gt,
  inArray,
  isNotNull,
  isNull,
  sql,
  type SQL,
} from 'drizzle-orm';
import type {
  PatternDetail,
  PatternFacts,
  PatternForUse,
  PatternSummary,
  PatternUse,
} from '../../contract/data';
import { done, fail, failWith, type Outcome } from '../../contract/failure';
import { checkRecipe } from '../../core/recipe/check';
import { migrateRecipe } from '../../core/recipe/migrate';
import type { Recipe } from '../../core/recipe/recipe';
import { buildMeasured } from '../../core/scene/measured';
import { STUDIO, type Db } from '../db/open';
import { fill, layout, pattern, project, revision, shape } from '../db/schema';
import { newId, note, stale, writing } from './context';
import { nameKey } from './names';

export type PatternQuery = {
  search: string;
  archived: boolean;
  drafts: boolean;
  limit: number;
  offset: number;
};

type PatternRow = typeof pattern.$inferSelect;

/** The patterns of the library by name, or by relevance to the search words. Drafts without a revision only on request. */
export function listPatterns(db: Db, query: PatternQuery): PatternSummary[] {
  const match = matchText(query.search);
  const where: (SQL | undefined)[] = [
    eq(pattern.studioId, STUDIO),
    query.archived ? isNotNull(pattern.archivedAt) : isNull(pattern.archivedAt),
    query.drafts ? undefined : gt(pattern.newest, 0),
    match === null
      ? undefined
      : sql`${pattern.id} IN (SELECT pattern_id FROM pattern_search WHERE pattern_search MATCH ${match})`,
  ];
  const rows = db
    .select()
    .from(pattern)
    .where(and(...where))
    .orderBy(asc(pattern.nameKey))
    .limit(query.limit)
    .offset(query.offset)
    .all();
  return summaries(db, rows);
}

/** One pattern with its newest recipe, draft, revisions and uses. */
export function getPattern(db: Db, id: string): Outcome<PatternDetail> {
  const row = findRow(db, id);
  if (!row) return noPattern(id);
  const [summary] = summaries(db, [row]);
  const recipe = row.newest > 0 ? recipeAt(db, id, row.newest) : null;
  const revisions = db
    .select({ number: revision.number, createdAt: revision.createdAt })
    .from(revision)
    .where(eq(revision.patternId, id))
    .orderBy(desc(revision.number))
    .all();
  const draft = row.draft === null ? null : stored(row.draft);
  return done({ ...(summary as PatternSummary), recipe, draft, revisions, usedIn: usesOf(db, id) });
}

/** The recipe of one revision, or `null`. */
export function recipeAt(db: Db, id: string, number: number): Recipe | null {
  const row = db
    .select({ recipe: revision.recipe })
    .from(revision)
    .where(and(eq(revision.patternId, id), eq(revision.number, number)))
    .get();
  return row ? stored(row.recipe) : null;
}

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
    .where(and(eq(fill.patternId, id), isNull(layout.archivedAt), isNull(project.archivedAt)))
    .orderBy(asc(project.nameKey), asc(layout.nameKey), asc(shape.position))
    .all();
}

/** A new pattern with a draft and no revision yet. */
export function createPattern(
  db: Db,
  input: { name: string; description?: string; recipe: Recipe },
): Outcome<{ id: string; version: number }> {
  const problems = checkRecipe(input.recipe);
  if (problems.length > 0) return failWith(problems);
  return writing(db, { what: 'pattern', name: input.name }, (tx) => {
    const id = newId();
    const now = Date.now();
    tx.insert(pattern)
      .values({
        id,
        studioId: STUDIO,
        name: input.name,
        nameKey: nameKey(input.name),
        description: input.description ?? '',
        draft: JSON.stringify(input.recipe),
        createdAt: now,
        updatedAt: now,
      })
      .run();
    note(tx, 'pattern.created', id);
    return done({ id, version: 1 });
  });
}

/** Keeps work in progress. Uses go on showing the newest revision. */
export function saveDraft(db: Db, id: string, base: number, recipe: Recipe): Outcome<{ version: number }> {
  const problems = checkRecipe(recipe);
  if (problems.length > 0) return failWith(problems);
  return changing(db, id, base, '', (tx) => {
    tx.update(pattern)
      .set({ draft: JSON.stringify(recipe) })
      .where(eq(pattern.id, id))
      .run();
    return null;
  });
}

/** Changes name or description; uses refer to the id, so none changes. */
export function patchPattern(
  db: Db,
  id: string,
  base: number,
  patch: { name?: string; description?: string },
): Outcome<{ version: number }> {
  return changing(db, id, base, patch.name ?? '', (tx, row) => {
    const { name, description } = patch;
    tx.update(pattern)
      .set({
        ...(name === undefined ? {} : { name, nameKey: nameKey(name) }),
        ...(description === undefined ? {} : { description }),
      })
      .where(eq(pattern.id, id))
      .run();
    if (name !== undefined && name !== row.name)
      note(tx, 'pattern.renamed', id, { from: row.name, to: name });
    return null;
  });
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

/** Patterns with the recipes that uses need: the newest, and those at which some of `held` are held. */
export function patternsForUse(
  db: Db,
  ids: readonly string[],
  held: ReadonlyMap<string, ReadonlySet<number>>,
): PatternForUse[] {
  if (ids.length === 0) return [];
  const rows = db
    .select({ id: pattern.id, name: pattern.name, newest: pattern.newest })
    .from(pattern)
    .where(inArray(pattern.id, [...ids]))
    .all();
  return rows.map((row) => {
    const recipes: Record<number, Recipe> = {};
    for (const number of new Set([row.newest, ...(held.get(row.id) ?? [])])) {
      const recipe = recipeAt(db, row.id, number);
      if (recipe) recipes[number] = recipe;
    }
    return { ...row, recipes };
  });
}

/** What is known of a recipe without drawing it. */
export function factsOf(recipe: Recipe): PatternFacts {
  const { kind, measure, slots } = recipe;
  const clear = recipe.ground.kind === 'clear';
  if (kind === 'measured') {
    const { pitch } = buildMeasured(recipe.measured);
    return { kind, unit: pitch, gap: NO_GAP, repeat: { kind: 'straight' }, measure, slots, clear };
  }
  const { unit, gap, repeat } = recipe;
  return { kind, unit, gap, repeat, measure, slots, clear };
}

const NO_GAP = { across: 0, down: 0 };

/** The words of a search as an FTS5 query: every word must begin a word of the text; `null` for no words. */
export function matchText(search: string): string | null {
  const words = search.match(/[\p{L}\p{N}]+/gu) ?? [];
  return words.length === 0 ? null : words.map((word) => `"${word}"*`).join(' ');
}

export type Change = (tx: Db, row: PatternRow) => ReturnType<typeof fail> | null;

/** One guarded change of a pattern: refused when stale, else the version goes up by one. */
export function changing(
  db: Db,
  id: string,
  base: number,
  name: string,
  change: Change,
): Outcome<{ version: number }> {
  const outcome = writing(db, { what: 'pattern', name }, (tx): Outcome<{ version: number }> => {
    const row = findRow(tx, id);
    if (!row) return noPattern(id);
    if (row.version !== base) return stale(`“${row.name}”`, base, row.version, undefined);
    if (row.stock) return protectedStock(row.name);
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

export function findRow(db: Db, id: string): PatternRow | undefined {
  return db
    .select()
    .from(pattern)
    .where(and(eq(pattern.id, id), eq(pattern.studioId, STUDIO)))
    .get();
}

/** Stock is never changed: what others rely on stays. */
export function protectedStock(name: string): ReturnType<typeof fail> {
  return fail(
    'protected',
    `“${name}” is stock and stays as it is; keep it as new under another name to change it.`,
  );
}

/** Stored facts; those of revisions from before measured patterns have no kind. */
function factsFrom(json: string): PatternFacts {
  return { kind: 'composed', ...(JSON.parse(json) as Omit<PatternFacts, 'kind'>) };
}

export function noPattern(id: string): ReturnType<typeof fail> {
  return fail('not_found', `There is no pattern with the id “${id}”.`, 'id');
}

/** Stored recipe JSON, migrated. What this Isle wrote itself must be readable; anything else is a fault, not a failure. */
export function stored(json: string): Recipe {
  const checked = migrateRecipe(JSON.parse(json));
  if (!checked.ok) throw new Error(checked.problems[0]?.message);
  return checked.value;
}

function summaries(db: Db, rows: readonly PatternRow[]): PatternSummary[] {
  if (rows.length === 0) return [];
  const ids = rows.map((row) => row.id);
  const uses = db
    .select({ id: fill.patternId, uses: count(), projects: countDistinct(layout.projectId) })
    .from(fill)
    .innerJoin(shape, eq(shape.id, fill.shapeId))
    .innerJoin(layout, eq(layout.id, shape.layoutId))
    .where(and(inArray(fill.patternId, ids), isNull(layout.archivedAt)))
    .groupBy(fill.patternId)
    .all();
  const metrics = db
    .select({ id: revision.patternId, metrics: revision.metrics })
    .from(revision)
    .innerJoin(pattern, and(eq(pattern.id, revision.patternId), eq(pattern.newest, revision.number)))
    .where(inArray(revision.patternId, ids))
    .all();
  const usesById = new Map(uses.map((row) => [row.id, row]));
  const factsById = new Map(metrics.map((row) => [row.id, factsFrom(row.metrics)]));
  return rows.map((row) => ({
    id: row.id,
    name: row.name,
    description: row.description,
    stock: row.stock,
    newest: row.newest,
    version: row.version,
    hasDraft: row.draft !== null,
    archivedAt: row.archivedAt,
    updatedAt: row.updatedAt,
    facts: factsById.get(row.id) ?? null,
    uses: usesById.get(row.id)?.uses ?? 0,
    projects: usesById.get(row.id)?.projects ?? 0,
  }));
}

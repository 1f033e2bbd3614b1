import { and, eq, sql } from 'drizzle-orm';
import type { PatternCredit, PatternFacts } from '../../contract/data';
import type { Recipe } from '../../core/recipe/recipe';
import { buildMeasured } from '../../core/scene/measured';
import type { Db } from '../db/open';
import { pattern } from '../db/schema';
import { DRAFT, noteMade } from './made';
import { nameKey } from './names';
import { once, Rows, statement } from './rows';
import { indexRecipe } from './search-index';
import { draftKey, rememberSound, revisionKey } from './stored';

export type PatternRow = typeof pattern.$inferSelect;

const rows = new Rows(pattern);

const byId = once((db) =>
  db
    .select()
    .from(pattern)
    .where(and(eq(pattern.id, sql.placeholder('id')), eq(pattern.studioId, db.studio)))
    .prepare(),
);

const byName = once((db) =>
  db
    .select({ id: pattern.id, name: pattern.name, stock: pattern.stock })
    .from(pattern)
    .where(and(eq(pattern.studioId, db.studio), eq(pattern.nameKey, sql.placeholder('key'))))
    .prepare(),
);

export const findRow = (db: Db, id: string): PatternRow | undefined => byId(db).get({ id });

/** The pattern that has a name, whatever its case and accents. */
export const rowNamed = (db: Db, name: string): Pick<PatternRow, 'id' | 'name' | 'stock'> | undefined =>
  byName(db).get({ key: nameKey(name) });

export type FreshPattern = { id: string; name: string; description: string; recipe: Recipe };

/** Writes a new pattern, whose recipe was found sound, with a draft and no revision yet. Words are not indexed yet. */
export function insertDraft(tx: Db, fresh: FreshPattern): void {
  insert(tx, fresh, { draft: JSON.stringify(fresh.recipe) });
  indexFacts(tx, fresh.id, fresh.recipe);
  noteMade(tx, fresh.id, DRAFT, fresh.recipe);
  rememberSound(tx, draftKey(fresh.id, 1));
}

/** Writes a new pattern, whose recipe was found sound, published as its first revision. Words are not indexed yet. */
export function insertPublished(tx: Db, fresh: FreshPattern, credit: PatternCredit): void {
  insert(tx, fresh, { ...credit, newest: 1 });
  addRevision(tx, fresh.id, 1, fresh.recipe);
}

function insert(
  tx: Db,
  { id, name, description }: FreshPattern,
  more: Partial<typeof pattern.$inferInsert>,
): void {
  const now = Date.now();
  const seq = statement(tx, 'SELECT coalesce(max(seq), 0) + 1 FROM pattern').pluck().get() as number;
  const own = { id, studioId: tx.studio, name, nameKey: nameKey(name), description, seq };
  rows.put(tx, { ...own, createdAt: now, updatedAt: now, ...more }, null);
}

/** Writes a revision of a recipe that was found sound, and what filters find the pattern by from now on. */
export function addRevision(tx: Db, id: string, number: number, recipe: Recipe): void {
  const facts = indexFacts(tx, id, recipe);
  statement(
    tx,
    `INSERT INTO revision (pattern_id, number, studio_id, recipe, recipe_version, metrics, created_at)
      VALUES (?, ?, ?, ?, ?, ?, ?)`,
  ).run(id, number, tx.studio, JSON.stringify(recipe), recipe.version, JSON.stringify(facts), Date.now());
  noteMade(tx, id, number, recipe);
  rememberSound(tx, revisionKey(id, number));
}

/** Writes what filters find a pattern by, and answers the facts. */
export function indexFacts(tx: Db, id: string, recipe: Recipe): PatternFacts {
  const facts = factsOf(recipe);
  const { kind, unit, repeat, clear, slots } = facts;
  const pictures =
    recipe.kind === 'pictured' ||
    (recipe.kind === 'composed' &&
      recipe.motifs.some(
        ({ content }) => content.kind === 'drawing' && content.elements.some((element) => element.picture),
      ));
  indexRecipe(tx, id, {
    kind: kind === 'measured' ? 'measured' : pictures ? 'picture' : 'drawn',
    repeatKind: repeat.kind,
    width: unit.width,
    height: unit.height,
    clear,
    slots,
  });
  return facts;
}

/** What is known of a recipe without drawing it. */
export function factsOf(recipe: Recipe): PatternFacts {
  const { kind, measure, slots } = recipe;
  const clear = recipe.ground.kind === 'clear';
  if (kind === 'measured') {
    const { pitch } = buildMeasured(recipe.measured);
    return { kind, unit: pitch, gap: NO_GAP, repeat: { kind: 'straight' }, measure, slots, clear };
  }
  if (recipe.kind === 'pictured') {
    const { unit, lay } = recipe;
    const repeat = lay.kind === 'straight' ? lay : { ...lay, run: 'progressive' as const };
    return { kind, unit, gap: NO_GAP, repeat, measure, slots, clear };
  }
  const { unit, gap, repeat } = recipe;
  return { kind, unit, gap, repeat, measure, slots, clear };
}

const NO_GAP = { across: 0, down: 0 };

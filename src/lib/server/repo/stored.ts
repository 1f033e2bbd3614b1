import { done, fail, type Outcome } from '../../contract/failure';
import { migrateRecipe } from '../../core/recipe/migrate';
import type { Problem } from '../../core/recipe/problem';
import type { Recipe } from '../../core/recipe/recipe';
import { soundRecipe } from '../../core/scene/sound';
import type { Db } from '../db/open';

/** What is known of a database's recipes that were read before, by the name of what never changes (a revision). */
const verdicts = new WeakMap<Db['$client'], Map<string, string | null>>();
const MOST_VERDICTS = 20_000;

function verdictsOf({ $client }: Db): Map<string, string | null> {
  const held = verdicts.get($client);
  if (held && held.size < MOST_VERDICTS) return held;
  const fresh = new Map<string, string | null>();
  verdicts.set($client, fresh);
  return fresh;
}

/** Recipes that were found sound where they came in: what a child process checked is not checked again here. */
const sound = new WeakSet<Recipe>();

export const markSound = (recipe: Recipe): void => void sound.add(recipe);

/** Why a recipe must not be kept, or nothing. */
export const problemsOf = (recipe: Recipe): Problem[] => (sound.has(recipe) ? [] : soundRecipe(recipe));

/** Remembers that the state of that name is sound. */
export const rememberSound = (db: Db, key: string): void => void verdictsOf(db).set(key, null);

/** The name of a draft at a version of its pattern, and that of a revision. */
export const draftKey = (id: string, version: number): string => `${id}#${version}`;
export const revisionKey = (id: string, number: number): string => `${id}@${number}`;

/**
 * A stored recipe, migrated, or a sentence that says why it cannot be shown. It was checked when it was written; but by
 * an older Isle with other limits, or the file was damaged since. One bad recipe must not take the others along.
 * `key` names a state that never changes: its verdict is remembered.
 */
export function readStored(db: Db, json: string, key: string | null = null): Outcome<Recipe> {
  const known = key === null ? undefined : verdictsOf(db).get(key);
  if (typeof known === 'string') return fail('unsupported', known);
  const read = parsed(json, known === null);
  if (key !== null) verdictsOf(db).set(key, read.ok ? null : read.failure.message);
  return read;
}

function parsed(json: string, known: boolean): Outcome<Recipe> {
  try {
    const migrated = migrateRecipe(JSON.parse(json));
    const [problem] = migrated.ok ? (known ? [] : soundRecipe(migrated.value)) : migrated.problems;
    if (problem) return fail('unsupported', problem.message, problem.path);
    return migrated.ok ? done(migrated.value) : fail('unsupported', DAMAGED);
  } catch {
    return fail('unsupported', DAMAGED);
  }
}

const DAMAGED = 'What is stored of this pattern is damaged; restore a backup, or an older revision.';

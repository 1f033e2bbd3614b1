import { done, fail, type Outcome } from '../../contract/failure';
import { migrateRecipe } from '../../core/recipe/migrate';
import type { Recipe } from '../../core/recipe/recipe';
import { soundRecipe } from '../../core/scene/sound';

/** What is known of recipes that were read before, by the name of what never changes (a revision). */
const verdicts = new Map<string, string | null>();
const MOST_VERDICTS = 20_000;

/**
 * A stored recipe, migrated, or a sentence that says why it cannot be shown. It was checked when it was written; but by
 * an older Isle with other limits, or the file was damaged since. One bad recipe must not take the others along.
 * `key` names a state that never changes: its verdict is remembered.
 */
export function readStored(json: string, key: string | null = null): Outcome<Recipe> {
  const known = key === null ? undefined : verdicts.get(key);
  if (typeof known === 'string') return fail('unsupported', known);
  const read = parsed(json, known === null);
  if (key !== null) {
    if (verdicts.size >= MOST_VERDICTS) verdicts.clear();
    verdicts.set(key, read.ok ? null : read.failure.message);
  }
  return read;
}

function parsed(json: string, sound: boolean): Outcome<Recipe> {
  try {
    const migrated = migrateRecipe(JSON.parse(json));
    const [problem] = migrated.ok ? (sound ? [] : soundRecipe(migrated.value)) : migrated.problems;
    if (problem) return fail('unsupported', problem.message, problem.path);
    return migrated.ok ? done(migrated.value) : fail('unsupported', DAMAGED);
  } catch {
    return fail('unsupported', DAMAGED);
  }
}

const DAMAGED = 'What is stored of this pattern is damaged; restore a backup, or an older revision.';

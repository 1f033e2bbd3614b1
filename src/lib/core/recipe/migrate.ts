import type { Checked } from './problem';
import { RECIPE_VERSION, type Recipe } from './recipe';

/**
 * Brings stored recipe data to the present version. There is one version so far; an unknown one is refused, since
 * guessing at it could change a published pattern.
 */
export function migrateRecipe(stored: unknown): Checked<Recipe> {
  const version = (stored as { version?: unknown } | null)?.version;
  if (version === RECIPE_VERSION) return { ok: true, value: stored as Recipe };
  return {
    ok: false,
    problems: [
      {
        code: 'unknown_version',
        path: 'version',
        message: `This pattern is stored in version ${String(version)}; this Isle reads version ${RECIPE_VERSION}. Update Isle to open it.`,
      },
    ],
  };
}

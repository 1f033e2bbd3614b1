import { FILL_VERSION, freshLayer, freshPlace, type Fill } from './fill';
import type { Checked } from './problem';
import { FRONT } from '../lattice/repeat';
import { PLAIN_AIDS, RECIPE_VERSION, type ComposedRecipe, type Placing, type Recipe } from './recipe';

/** A recipe as version 1 stored it: no overlap order, no opacity of placings, no aids. */
type RecipeV1 = Omit<ComposedRecipe, 'version' | 'front' | 'aids' | 'placings'> & {
  version: 1;
  placings: Omit<Placing, 'opacity'>[];
};

/**
 * Brings stored recipe data to the present version; the drawing stays the same. An unknown version is refused, since
 * guessing at it could change a published pattern.
 */
export function migrateRecipe(stored: unknown): Checked<Recipe> {
  const version = (stored as { version?: unknown } | null)?.version;
  if (version === RECIPE_VERSION) return { ok: true, value: stored as Recipe };
  if (version === 1) return { ok: true, value: fromV1(stored as RecipeV1) };
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

function fromV1(old: RecipeV1): ComposedRecipe {
  return {
    ...old,
    version: RECIPE_VERSION,
    front: FRONT,
    aids: PLAIN_AIDS,
    placings: old.placings.map((placing) => ({ ...placing, opacity: 1 })),
  };
}

/**
 * A stored fill at the present version. Version 1 kept plain hex values for slots; until version 2 a shape had one
 * fill, with no blend, mask, reflection or gradient, anchored to its shape. An unknown version throws: it is a fault of
 * the database.
 */
export function migrateFill(stored: unknown): Fill {
  const old = stored as Fill & { version: number };
  if (old.version === FILL_VERSION) return old;
  if (old.version !== 1 && old.version !== 2)
    throw new Error(
      `Fill ${old.id} is stored in version ${String(old.version)}; this Isle reads ${FILL_VERSION}.`,
    );
  if (old.kind !== 'pattern') return { ...freshLayer(old.id), ...(old as Fill), version: FILL_VERSION };
  const colours = Object.fromEntries(
    Object.entries(old.colours).map(([slot, tint]) => [
      slot,
      typeof tint === 'string' ? { colour: tint as string } : tint,
    ]),
  );
  const fresh = { ...freshLayer(old.id), ...freshPlace() };
  return { ...fresh, ...old, wash: null, version: FILL_VERSION, colours };
}

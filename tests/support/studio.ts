import type { PatternPatch } from '../../src/lib/contract/given';
import type { Outcome } from '../../src/lib/contract/failure';
import type { LayoutData, PatternDetail } from '../../src/lib/contract/data';
import type { Recipe } from '../../src/lib/core/recipe/recipe';
import type { Shape } from '../../src/lib/core/recipe/layout';
import type { Db } from '../../src/lib/server/db/open';
import { applyChanges } from '../../src/lib/server/repo/layout-changes';
import { createLayout, getLayout } from '../../src/lib/server/repo/layouts';
import { createPattern, getPattern, patchPattern } from '../../src/lib/server/repo/patterns';
import { publish } from '../../src/lib/server/repo/publishing';
import { createProject } from '../../src/lib/server/repo/projects';
import { block, place, recipe } from './recipes';

/** Two colours, one block: the smallest pattern there is. */
export const PLAIN = recipe({ motifs: [block('b', 10, 10)], placings: [place('b', 5, 5)] });

/** The value of an outcome; throws its sentence where it failed. */
export function need<T>(outcome: Outcome<T>): T {
  if (!outcome.ok) throw new Error(outcome.failure.message);
  return outcome.value;
}

/** The sentence of a failed outcome. */
export function sentence(outcome: Outcome<unknown>): string {
  return outcome.ok ? '' : `${outcome.failure.code}: ${outcome.failure.message}`;
}

/** A published pattern. */
export function kept(db: Db, name: string, patch: PatternPatch = {}, art: Recipe = PLAIN): string {
  const { id, version } = need(createPattern(db, { name, recipe: art }));
  const published = need(publish(db, id, version));
  if (Object.keys(patch).length > 0) need(patchPattern(db, id, published.version, patch));
  return id;
}

export const patternOf = (db: Db, id: string): PatternDetail => need(getPattern(db, id));

/** A layout of a project with shapes in it. */
export function laidOut(db: Db, project: string, name: string, shapes: readonly Shape[]): LayoutData {
  const layout = need(createLayout(db, project, { name, width: 300, height: 100, measure: 'px' }));
  need(
    applyChanges(
      db,
      layout.id,
      1,
      shapes.map((shape) => ({ do: 'put-shape' as const, shape })),
    ),
  );
  return need(getLayout(db, layout.id));
}

export const projectNamed = (db: Db, name: string): string => need(createProject(db, name)).id;

import type { PatternFill } from '../recipe/fill';
import type { Layout } from '../recipe/layout';
import type { Colourway } from '../colour/colourway';
import type { Recipe } from '../recipe/recipe';
import { compiledPattern, type CompiledPattern, type PatternLookup } from './pattern';
import { compileUnit } from './unit';

/** A pattern with the recipes of some of its revisions. */
export type PatternRevisions = {
  id: string;
  name: string;
  newest: number;
  recipes: Readonly<Record<number, Recipe>>;
  colourways: readonly Colourway[];
};

/** The revision that a fill shows: the one at which it is held, else the newest. */
export const shownRevision = (fill: PatternFill, newest: number): number => fill.held ?? newest;

/** A lookup over patterns that compiles each revision once, when it is first asked for, and over the layouts that fills show. */
export function patternLookup(
  patterns: Iterable<PatternRevisions>,
  pages: ReadonlyMap<string, Layout> = new Map(),
): PatternLookup {
  const byId = new Map([...patterns].map((pattern) => [pattern.id, pattern]));
  const compiled = new Map<string, CompiledPattern>();
  const find = (fill: PatternFill): CompiledPattern | null => {
    const pattern = byId.get(fill.pattern);
    if (!pattern) return null;
    const revision = shownRevision(fill, pattern.newest);
    const key = `${pattern.id}@${revision}`;
    const held = compiled.get(key);
    if (held) return held;
    const recipe = pattern.recipes[revision];
    if (!recipe) return null;
    const fresh = compiledPattern(key, pattern.name, compileUnit(recipe), recipe.slots, pattern.colourways);
    compiled.set(key, fresh);
    return fresh;
  };
  return Object.assign(find, { pages });
}

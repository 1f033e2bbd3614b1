import type { Recipe } from '../../core/recipe/recipe';
import { FERRY_AND_FAIR } from './patterns-ferry-fair';
import { LIDO } from './patterns-lido';
import { recipeOf } from './draw';

/** All demo patterns as recipes. */
export function demoPatterns(): { name: string; description: string; recipe: Recipe }[] {
  return [...LIDO, ...FERRY_AND_FAIR].map(({ name, description, plan }) => ({
    name,
    description,
    recipe: recipeOf(plan),
  }));
}

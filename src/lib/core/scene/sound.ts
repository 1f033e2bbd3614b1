import { checkRecipe } from '../recipe/check';
import type { Problem } from '../recipe/problem';
import type { Recipe } from '../recipe/recipe';
import { compileUnit } from './unit';

/**
 * Why a recipe cannot be drawn, or nothing: what {@link checkRecipe} finds, and what its numbers come to together. A
 * pattern may be large and it may be fine; both at once are more copies than anything can draw.
 */
export function soundRecipe(recipe: Recipe): Problem[] {
  const problems = checkRecipe(recipe);
  if (problems.length > 0) return problems;
  const { fault } = compileUnit(recipe, { skipAbutments: true });
  return fault ? [fault] : [];
}

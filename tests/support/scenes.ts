import { freshFill, type PatternFill } from '../../src/lib/core/recipe/fill';
import { freshPage, freshShape, type Layout, type Shape } from '../../src/lib/core/recipe/layout';
import type { Recipe } from '../../src/lib/core/recipe/recipe';
import { lowerLayout } from '../../src/lib/core/draw/lower';
import { compiledPattern } from '../../src/lib/core/scene/pattern';
import type { DisplayList } from '../../src/lib/core/draw/list';
import { compileUnit } from '../../src/lib/core/scene/unit';

/** A rectangle that a pattern fills; numbers of its fill changed by `over`. */
export function filledShape(
  box: { x: number; y: number; width: number; height: number },
  over: Partial<PatternFill> = {},
): Shape {
  return freshShape({
    id: 'shape',
    name: 'Shape',
    form: { kind: 'rectangle', radius: 0 },
    ...box,
    fills: [{ ...freshFill('fill', 'pattern'), ...over }],
  });
}

/** A square layout of `side` px with one shape over all of it, filled with `recipe`. */
export function filledPage(
  recipe: Recipe,
  side: number,
  over: Partial<PatternFill> = {},
  background: string | null = null,
): DisplayList {
  const layout: Layout = {
    ...freshPage(side, side),
    background,
    shapes: [filledShape({ x: 0, y: 0, width: side, height: side }, over)],
  };
  const pattern = compiledPattern('pattern@1', 'Pattern', compileUnit(recipe), recipe.slots);
  return lowerLayout(layout, () => pattern);
}

import type { PatternFill } from '$lib/core/recipe/fill';
import type { Shape } from '$lib/core/recipe/layout';
import { repeatsAcross } from '$lib/core/lattice/whole';
import type { CompiledPattern } from '$lib/core/scene/layout';

/** "5.7 × 4.4": how often the unit with its gap goes into the shape's frame, along the pattern's own axes. */
export function unitsOver(shape: Shape, fill: PatternFill, pattern: CompiledPattern): string {
  const { width, height } = pattern.scene.pitch;
  const say = (count: number): string => String(Number(count.toFixed(1)));
  return `${say(repeatsAcross(shape.width, width * fill.scaleX))} × ${say(repeatsAcross(shape.height, height * fill.scaleY))}`;
}

import { translation } from '../../src/lib/core/geom/affine';
import { resolveSlots } from '../../src/lib/core/colour/slots';
import { resolveGround } from '../../src/lib/core/scene/pattern';
import { compileUnit } from '../../src/lib/core/scene/unit';
import type { ReadPattern } from '../../src/lib/core/svg/import-patterns';
import { basePattern, fillPattern } from '../../src/lib/core/svg/live';
import { FOREIGN_BOX } from './foreign-patterns';

/** The page of a foreign file with its rectangle filled with the pattern that was read from it, at the same place. */
export function redrawn({ recipe, at }: ReadPattern): string {
  const scene = compileUnit(recipe);
  const colours = resolveSlots(recipe.slots, {});
  const ground = resolveGround(scene, colours);
  const { x, y, width, height } = FOREIGN_BOX;
  const rect = (fill: string): string =>
    `<rect x="${x}" y="${y}" width="${width}" height="${height}" fill="${fill}"/>`;
  return [
    '<svg xmlns="http://www.w3.org/2000/svg" width="360" height="300">',
    `<defs>${basePattern('b', scene, colours, 2)}${fillPattern('f', 'b', scene, translation(at.x, at.y))}</defs>`,
    '<rect width="360" height="300" fill="#fff"/>',
    ground ? rect(ground.colour) : '',
    `${rect('url(#f)')}</svg>`,
  ].join('');
}

/** The share of pixels that differ by more than a third between the original and the redrawn page. */
export async function againstOriginal(
  original: string,
  again: string,
  draw: (svg: string) => Promise<Uint8Array>,
): Promise<number> {
  const [one, other] = [await draw(original), await draw(again)];
  let count = 0;
  for (let at = 0; at < one.length; at += 4)
    if ([0, 1, 2].some((channel) => Math.abs(one[at + channel]! - other[at + channel]!) > 85)) count += 1;
  return count / (one.length / 4);
}

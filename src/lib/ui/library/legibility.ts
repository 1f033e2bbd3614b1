import type { Hex } from '$lib/core/colour/parse';
import { resolveSlots, type SlotColours } from '$lib/core/colour/slots';
import { judgeLegibility, type Legibility } from '$lib/core/raster/legible';
import type { Recipe } from '$lib/core/recipe/recipe';
import { compileUnit } from '$lib/core/scene/unit';
import { tileMarkup } from '$lib/core/svg/tile';
import { rasterOf } from '../state/raster';

const SIDE = 360;

/** Legibility with the worst place in px of the pattern's cell. */
export type ReadingOn = Omit<Legibility, 'x' | 'y'> & { at: { x: number; y: number } };

/**
 * How text or a logo in one colour reads on a pattern that is shown at `scale`: the luminance round each place is
 * averaged over a square of half the size of the text (`size`, px of the page), since a letter is seen against as much.
 */
export async function readingOn(
  recipe: Recipe,
  {
    over,
    surface,
    colour,
    size,
    scale,
  }: { over: SlotColours; surface: Hex; colour: Hex; size: number; scale: number },
): Promise<ReadingOn> {
  const scene = compileUnit(recipe);
  const { width, height } = scene.cell;
  const fit = SIDE / Math.max(width, height);
  const pixels = {
    width: Math.max(8, Math.round(width * fit)),
    height: Math.max(8, Math.round(height * fit)),
  };
  const inside = tileMarkup(scene, resolveSlots(recipe.slots, over), fit);
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${pixels.width}" height="${pixels.height}" viewBox="0 0 ${width} ${height}" preserveAspectRatio="none"><rect width="100%" height="100%" fill="${surface}"/>${inside}</svg>`;
  const raster = await rasterOf(svg, pixels.width, pixels.height);
  const { x, y, ...rest } = judgeLegibility(raster, colour, (size / 2 / scale) * fit);
  return { ...rest, at: { x: (x + 0.5) / fit, y: (y + 0.5) / fit } };
}

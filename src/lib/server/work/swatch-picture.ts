import type { SlotColours } from '../../core/colour/slots';
import { freshFill } from '../../core/recipe/fill';
import { freshPage, freshShape } from '../../core/recipe/layout';
import type { Recipe } from '../../core/recipe/recipe';
import { lowerLayout } from '../../core/draw/lower';
import { compiledPattern } from '../../core/scene/pattern';
import { compileUnit } from '../../core/scene/unit';
import { renderPng } from '../render/png';
import type { Tools } from './tools';

export type SwatchSize = { width: number; height: number; scale: number; pixels: number };

/**
 * A sample strip in pixels, drawn as a layout's PNG is: without hairlines, and quick to scroll past, which strips that
 * the browser must draw anew from their shapes are not. `pixels` are those to a CSS px.
 */
export async function swatchPicture(
  { pool, pictures }: Tools,
  recipe: Recipe,
  over: SlotColours,
  { width, height, scale, pixels }: SwatchSize,
): Promise<Uint8Array> {
  const slots = recipe.slots.map((slot) => ({ ...slot, colour: over[slot.id] ?? slot.colour }));
  const pattern = compiledPattern('swatch', 'swatch', compileUnit(recipe), slots);
  const shape = freshShape({
    id: 'strip',
    name: 'strip',
    form: { kind: 'rectangle', radius: 0 },
    x: 0,
    y: 0,
    width,
    height,
    fills: [{ ...freshFill('fill', 'swatch'), scaleX: scale, scaleY: scale }],
  });
  const page = { ...freshPage(width, height), background: null, shapes: [shape] };
  const scene = lowerLayout(page, () => pattern);
  const parts: Uint8Array[] = [];
  await renderPng(scene, pool, {
    size: { width: Math.round(width * pixels), height: Math.round(height * pixels), ppi: 96 * pixels },
    picture: await pictures.forScene(scene),
    pixels: pictures.pixels,
    write: (bytes) => {
      parts.push(bytes);
      return Promise.resolve();
    },
  });
  return Buffer.concat(parts);
}

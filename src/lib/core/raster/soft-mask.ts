import type { Affine } from '../geom/affine';
import type { BrushStroke } from '../geom/brush-stroke';
import { canvasOf, eachCovered } from './brush';
import type { Raster } from './composite';

/** A stroke of a painted mask, as the recipe keeps it. */
type MaskStroke = BrushStroke & { mode: 'erase' | 'restore' };

/**
 * How much a painted mask shows, 0 to 255 for each of `width` × `height` pixels; `toMask` takes pixels to mask px.
 * Where a stroke covers c, erasing leaves m·(1 − c), restoring gives m + (1 − m)·c.
 */
export function paintedMask(
  strokes: readonly MaskStroke[],
  toMask: Affine,
  width: number,
  height: number,
  starts: 'shown' | 'hidden' = 'shown',
): Uint8Array {
  const shown = new Float32Array(width * height).fill(starts === 'shown' ? 1 : 0);
  const canvas = canvasOf(toMask, width, height);
  if (canvas)
    for (const stroke of strokes)
      eachCovered(stroke, canvas, (at, cover) => {
        const held = shown[at]!;
        shown[at] = stroke.mode === 'erase' ? held * (1 - cover) : held + (1 - held) * cover;
      });
  const bytes = new Uint8Array(shown.length);
  for (let at = 0; at < bytes.length; at += 1) bytes[at] = Math.round(shown[at]! * 255);
  return bytes;
}

/**
 * How much a picture lets show: its luminance (sRGB values weighed as SVG 2 says for luminance masks) times its
 * alpha, or what is left of one; nothing shows beyond it. Takes a picture sampled to the mask's size.
 */
export function luminanceMask({ data }: Raster, inverted: boolean): Uint8Array {
  const shown = new Uint8Array(data.length / 4);
  for (let at = 0; at < shown.length; at += 1) {
    const from = at * 4;
    const light = 0.2125 * data[from]! + 0.7154 * data[from + 1]! + 0.0721 * data[from + 2]!;
    shown[at] = Math.round(inverted ? data[from + 3]! - light : light);
  }
  return shown;
}

import { fromByteArray } from 'base64-js';
import { zlibSync } from 'fflate';
import { chain, scaling, translation } from '../geom/affine';
import type { Box } from '../geom/box';
import { strokesBox } from '../raster/brush';
import { paintedMask } from '../raster/soft-mask';
import type { PaintedMask } from '../recipe/mask';
import { greyFile } from './png';

/** The longest side of a mask's picture in a file or on the stage, px: softness needs few, and it stays in memory. */
const LONGEST = 2048;

/**
 * The part of a painted mask that its strokes touch, as grey px (255 shows), row by row, and its box in mask px; all beyond it is as
 * the mask starts. It has `scale` of its px to a mask px, or fewer where it would be larger than 2048 px a side. `null` for a mask
 * without strokes.
 */
export function maskGrey(
  { strokes, starts }: PaintedMask,
  scale: number,
): { grey: Uint8Array; width: number; height: number; box: Box } | null {
  const box = strokesBox(strokes);
  if (!box) return null;
  const fit = Math.min(scale, LONGEST / Math.max(box.width, box.height));
  const width = Math.max(1, Math.round(box.width * fit));
  const height = Math.max(1, Math.round(box.height * fit));
  const toMask = chain(translation(box.x, box.y), scaling(box.width / width, box.height / height));
  return { grey: paintedMask(strokes, toMask, width, height, starts), width, height, box };
}

/** {@link maskGrey} as the data URL of a grey PNG. */
export function maskPicture(mask: PaintedMask, scale: number): { href: string; box: Box } | null {
  const made = maskGrey(mask, scale);
  if (!made) return null;
  const { grey, width, height, box } = made;
  const rows = new Uint8Array((width + 1) * height);
  for (let y = 0; y < height; y += 1)
    rows.set(grey.subarray(y * width, (y + 1) * width), y * (width + 1) + 1);
  const png = greyFile(width, height, zlibSync(rows, { level: 6 }));
  return { href: `data:image/png;base64,${fromByteArray(png)}`, box };
}

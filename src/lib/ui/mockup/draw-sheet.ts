import { maskPicture } from '$lib/core/formats/mask-picture';
import type { Sheet } from '$lib/core/mockup/sheet';
import { toPx } from '$lib/core/num/length';
import type { LayoutScene } from '$lib/core/scene/layout';
import { layoutSvg } from '$lib/core/svg/layout';
import { imageOf } from '../state/raster';
import type { SheetPicture } from './paint-object';

/** What is drawn on a cut sheet as pixels, `side` of them along its longer side: it is laid on the object piece by piece. */
export async function drawSheet(scene: LayoutScene, sheet: Sheet, side: number): Promise<SheetPicture> {
  const px = side / Math.max(sheet.width, sheet.height);
  const scale = px / toPx(1, 'mm');
  const picture = document.createElement('canvas');
  picture.width = Math.max(1, Math.round(sheet.width * px));
  picture.height = Math.max(1, Math.round(sheet.height * px));
  const svg = layoutSvg(scene, {
    patterns: 'live',
    region: { x: 0, y: 0, width: toPx(sheet.width, 'mm'), height: toPx(sheet.height, 'mm') },
    width: String(picture.width),
    height: String(picture.height),
    scale,
    maskPicture: (mask) => maskPicture(mask, scale),
  });
  // An image of SVG would be drawn anew, part by part, each time it is laid on a cell, with soft edges of its own.
  picture.getContext('2d')!.drawImage(await imageOf(svg), 0, 0);
  return { picture, px };
}

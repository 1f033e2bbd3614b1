import { maskPicture } from '$lib/core/formats/mask-picture';
import type { Sheet } from '$lib/core/mockup/sheet';
import { toPx } from '$lib/core/num/length';
import type { LayoutScene } from '$lib/core/scene/layout';
import { layoutSvg } from '$lib/core/svg/layout';
import { imageOf } from '../state/raster';
import type { SheetPicture } from './paint-object';

/** What is drawn goes on by so many px beyond its edges, below it. */
const BLEED = 3;
const AROUND = [-1, 0, 1].flatMap((x) => [-1, 0, 1].map((y) => ({ x, y })));

/**
 * What is drawn on a cut sheet as pixels, `side` of them along its longer side: it is laid on the object piece by piece. Its
 * colours go on a little beyond where they end, as printers let them bleed: where two ends of a sheet meet on the object
 * their soft edges would let the page shine through.
 */
export async function drawSheet(scene: LayoutScene, sheet: Sheet, side: number): Promise<SheetPicture> {
  const px = side / Math.max(sheet.width, sheet.height);
  const scale = px / toPx(1, 'mm');
  const drawn = document.createElement('canvas');
  drawn.width = Math.max(1, Math.round(sheet.width * px));
  drawn.height = Math.max(1, Math.round(sheet.height * px));
  const svg = layoutSvg(
    { ...scene, background: null },
    {
      patterns: 'live',
      region: { x: 0, y: 0, width: toPx(sheet.width, 'mm'), height: toPx(sheet.height, 'mm') },
      width: String(drawn.width),
      height: String(drawn.height),
      scale,
      maskPicture: (mask) => maskPicture(mask, scale),
    },
  );
  // An image of SVG would be drawn anew, part by part, each time it is laid on a cell, with soft edges of its own.
  drawn.getContext('2d')!.drawImage(await imageOf(svg), 0, 0);
  const picture = document.createElement('canvas');
  [picture.width, picture.height] = [drawn.width + 2 * BLEED, drawn.height + 2 * BLEED];
  const context = picture.getContext('2d')!;
  for (let far = BLEED; far > 0; far -= 1)
    for (const { x, y } of AROUND) context.drawImage(drawn, BLEED + x * far, BLEED + y * far);
  context.drawImage(drawn, BLEED, BLEED);
  context.globalCompositeOperation = 'destination-over';
  context.fillStyle = scene.background ?? '#ffffff';
  context.fillRect(0, 0, picture.width, picture.height);
  return { picture, px, bleed: BLEED };
}

import { maskPicture } from '$lib/core/formats/mask-picture';
import type { Point } from '$lib/core/geom/point';
import type { Size } from '$lib/core/lattice/size';
import { toPx } from '$lib/core/num/length';
import type { DisplayList } from '$lib/core/draw/list';
import { layoutSvg } from '$lib/core/svg/layout';
import { imageOf } from '../state/raster';

/** What is drawn on the sheet, `px` of the picture to a mm; `bleed` px of it lie beyond the sheet on each side. */
export type SheetPicture = { picture: HTMLCanvasElement; px: number; bleed: number };

/** A page and where its upper left corner lies on the sheet, mm. */
export type PageThere = { scene: DisplayList; at: Point };

/** What is drawn goes on by so many px beyond its edges, below it. */
const BLEED = 3;
const AROUND = [-1, 0, 1].flatMap((x) => [-1, 0, 1].map((y) => ({ x, y })));

/**
 * What is drawn on a cut sheet (mm) as pixels, `side` of them along its longer side, cut off where the page ends. Its
 * colours go on a little beyond where they end, as printers let them bleed: where two ends of a sheet meet on the object
 * their soft edges would let the page shine through.
 */
export async function drawSheet({ scene, at }: PageThere, sheet: Size, side: number): Promise<SheetPicture> {
  const px = side / Math.max(sheet.width, sheet.height);
  const scale = px / toPx(1, 'mm');
  const drawn = document.createElement('canvas');
  drawn.width = Math.max(1, Math.round(sheet.width * px));
  drawn.height = Math.max(1, Math.round(sheet.height * px));
  const svg = layoutSvg(
    { ...scene, background: null },
    {
      patterns: 'live',
      region: {
        x: toPx(-at.x, 'mm'),
        y: toPx(-at.y, 'mm'),
        width: toPx(sheet.width, 'mm'),
        height: toPx(sheet.height, 'mm'),
      },
      width: String(drawn.width),
      height: String(drawn.height),
      scale,
      maskPicture: (mask) => maskPicture(mask, scale),
    },
  );
  const page = {
    x: at.x * px,
    y: at.y * px,
    width: scene.width * scale,
    height: scene.height * scale,
  };
  const whole =
    Math.abs(page.x) < 1 &&
    Math.abs(page.y) < 1 &&
    page.width >= drawn.width - 1 &&
    page.height >= drawn.height - 1;
  const paint = drawn.getContext('2d')!;
  if (!whole) {
    paint.beginPath();
    paint.rect(page.x, page.y, page.width, page.height);
    paint.clip();
    paint.fillStyle = scene.background ?? '#ffffff';
    paint.fillRect(page.x, page.y, page.width, page.height);
  }
  // An image of SVG would be drawn anew each time it is taken.
  paint.drawImage(await imageOf(svg), 0, 0);
  const picture = document.createElement('canvas');
  [picture.width, picture.height] = [drawn.width + 2 * BLEED, drawn.height + 2 * BLEED];
  const context = picture.getContext('2d')!;
  for (let far = BLEED; far > 0; far -= 1)
    for (const { x, y } of AROUND) context.drawImage(drawn, BLEED + x * far, BLEED + y * far);
  context.drawImage(drawn, BLEED, BLEED);
  context.globalCompositeOperation = 'destination-over';
  context.fillStyle = whole ? (scene.background ?? '#ffffff') : '#ffffff';
  context.fillRect(0, 0, picture.width, picture.height);
  return { picture, px, bleed: BLEED };
}

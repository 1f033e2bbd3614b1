import { readFileSync, rmSync } from 'node:fs';
import sharp from 'sharp';
import { done, fail, type Outcome } from '../../contract/failure';
import type { HandOutArea } from '../../contract/work';
import { pixelSize } from '../../core/num/length';
import { freshFill } from '../../core/recipe/fill';
import { freshPage, freshShape } from '../../core/recipe/layout';
import type { KeptPattern } from '../../core/recipe/library';
import { LIMITS } from '../../core/recipe/limits';
import { compiledPattern } from '../../core/scene/pattern';
import { lowerLayout } from '../../core/draw/lower';
import { compileUnit } from '../../core/scene/unit';
import { writePng } from './draw-png';
import type { Tools } from './tools';

const KINDS = {
  png: { ending: 'png', mediaType: 'image/png' },
  webp: { ending: 'webp', mediaType: 'image/webp' },
  tiff: { ending: 'tif', mediaType: 'image/tiff' },
} as const;

/** A WebP file has at most so many px a side (RFC 9649: 14 bits). */
const WEBP_SIDE = 16_383;
/** Pixels of such a picture: what is larger is exported from a layout. */
const MOST_PIXELS = LIMITS.exportPixels / 4;

/** An area filled with a pattern, from its unit's upper left corner on, as a picture that knows its resolution. */
export async function areaPicture(
  tools: Tools,
  { name, recipe }: KeptPattern,
  { width, height, ppi, type }: HandOutArea,
  path: string,
): Promise<Outcome<{ ending: string; mediaType: string; bytes: Uint8Array }>> {
  const kind = KINDS[type];
  const pixels = pixelSize({ width, height }, ppi);
  if (pixels.width * pixels.height > MOST_PIXELS)
    return fail(
      'too_large',
      `The picture would be ${pixels.width} × ${pixels.height} px; at most ${Math.floor(MOST_PIXELS / 1e6)} million pixels are drawn here. Make it smaller, or export it from a layout.`,
      'area',
    );
  if (type === 'webp' && Math.max(pixels.width, pixels.height) > WEBP_SIDE)
    return fail('too_large', `A WebP picture has at most ${WEBP_SIDE} px a side; take PNG or TIFF.`, 'area');
  const pattern = compiledPattern('area', name, compileUnit(recipe), recipe.slots, []);
  const shape = freshShape({
    id: 'area',
    name,
    form: { kind: 'rectangle', radius: 0 },
    ...{ x: 0, y: 0, width, height },
    fills: [freshFill('fill', 'area')],
  });
  const page = { ...freshPage(width, height), background: null, shapes: [shape] };
  const scene = lowerLayout(page, () => pattern);
  const drawn = `${path}.png`;
  try {
    const made = await writePng(tools, scene, { ppi, path: drawn, progress: () => undefined });
    if (!made.ok) return made;
    if (type === 'png') return done({ ...kind, bytes: readFileSync(drawn) });
    const image = sharp(drawn, { limitInputPixels: MOST_PIXELS }).withMetadata({ density: ppi });
    const file =
      type === 'webp'
        ? image.webp({ lossless: true, effort: 2 })
        : image.tiff({ compression: 'deflate', predictor: 'horizontal', xres: ppi / 25.4, yres: ppi / 25.4 });
    return done({ ...kind, bytes: await file.toBuffer() });
  } finally {
    rmSync(drawn, { force: true });
  }
}

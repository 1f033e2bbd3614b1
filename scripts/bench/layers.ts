import sharp from 'sharp';
import { IDENTITY } from '../../src/lib/core/geom/affine';
import { maskPicture } from '../../src/lib/core/formats/mask-picture';
import { seededRandom } from '../../src/lib/core/num/random';
import { coveringPicture, freshFill, gradientFill, type Fill } from '../../src/lib/core/recipe/fill';
import { freshGradient } from '../../src/lib/core/recipe/gradient';
import { freshPage, freshShape, type Shape } from '../../src/lib/core/recipe/layout';
import { lowerLayout } from '../../src/lib/core/draw/lower';
import { compiledPattern } from '../../src/lib/core/scene/pattern';
import type { DisplayList } from '../../src/lib/core/draw/list';
import { compileUnit } from '../../src/lib/core/scene/unit';
import { layoutSvg } from '../../src/lib/core/svg/layout';
import { embedPictures } from '../../src/lib/core/svg/paint';
import { openRenderPool } from '../../src/lib/server/render/pool';
import { renderPng } from '../../src/lib/server/render/png';
import { dot, place, recipe } from '../../tests/support/recipes';
import { median, print, sized } from './measure';

const SIDE = sized(7500, 500);

/** A page of 60 shapes over two photos: patterns that blend, one of them under a painted mask. */
export function layeredScene(side: number): DisplayList {
  const random = seededRandom(3);
  const art = recipe({ motifs: [dot('d', 40)], placings: [place('d', 30, 30), place('d', 75, 70)] });
  const pattern = compiledPattern('p@1', 'P', compileUnit(art), art.slots);
  const photo = { asset: 'a'.repeat(64), width: 2400, height: 1600 };
  const frame = { width: side, height: side / 2 };
  const photos = [0, 1].map((index): Shape =>
    freshShape({
      ...{ id: `photo${index}`, name: 'Photo', form: { kind: 'rectangle', radius: 0 } },
      ...{ x: 0, y: (index * side) / 2, ...frame },
      fills: [coveringPicture(`c${index}`, photo, frame)],
    }),
  );
  const size = side / 9;
  const shapes = Array.from({ length: 58 }, (_, index): Shape => {
    const fills: Fill[] = [
      {
        ...freshFill(`f${index}`, 'p'),
        scaleX: 2 + random() * 3,
        scaleY: 2 + random() * 3,
        rotation: random() * 360,
        blend: index % 2 ? 'screen' : 'multiply',
        ground: { kind: 'none' },
        opacity: 0.5 + random() / 2,
      },
    ];
    if (index % 6 === 0)
      fills.push({
        ...gradientFill(`g${index}`, freshGradient({ colour: '#e5572e' }, { colour: '#10394d' })),
        opacity: 0.4,
      });
    return freshShape({
      ...{ id: `s${index}`, name: 'S', form: { kind: 'ellipse' } },
      ...{ x: (index % 8) * size * 1.1, y: Math.floor(index / 8) * size * 1.1, width: size, height: size },
      fills,
      mask:
        index === 20
          ? {
              kind: 'painted',
              matrix: IDENTITY,
              strokes: [
                { mode: 'erase', size: size / 2, softness: 0.8, strength: 1, points: [0, 0, size, size] },
              ],
            }
          : null,
    });
  });
  return lowerLayout({ ...freshPage(side, side), shapes: [...photos, ...shapes] }, () => pattern);
}

async function photoBytes(): Promise<Buffer> {
  const noise = Buffer.from(Array.from({ length: 240 * 160 * 3 }, (_, at) => (at * 7919) % 251));
  return sharp(noise, { raw: { width: 240, height: 160, channels: 3 } })
    .resize(2400, 1600)
    .jpeg({ quality: 90 })
    .toBuffer();
}

/** Draws the layered page once, for whoever measures the memory of it. */
export async function drawLayers(side: number): Promise<void> {
  const bytes = await photoBytes();
  const pool = openRenderPool();
  await renderPng(layeredScene(SIDE), pool, {
    size: { width: side, height: side, ppi: 300 },
    pixels: ({ share, edges }) => pool.pixels({ bytes, share, edges }),
    write: () => Promise.resolve(),
  });
  await pool.close();
}

/** Export of photos, blends and a mask beside librsvg on the same SVG. */
export async function benchLayers(): Promise<void> {
  const bytes = await photoBytes();
  const isle = await median(() => drawLayers(SIDE), 3);
  const url = `data:image/jpeg;base64,${bytes.toString('base64')}`;
  const text = layoutSvg(layeredScene(SIDE), {
    patterns: 'live',
    width: String(SIDE),
    height: String(SIDE),
    maskPicture: (mask) => maskPicture(mask, 1),
  });
  const svg = Buffer.from(embedPictures(text, () => url));
  // One run, not warmed up: it takes minutes, since librsvg composes the whole page for every blend.
  const began = performance.now();
  await sharp(svg, { limitInputPixels: false, unlimited: true }).png().toBuffer();
  const librsvg = performance.now() - began;
  print(`Export, ${SIDE} × ${SIDE} px, 60 shapes, two photos, blends, a mask`, [
    { what: 'Isle', ms: isle },
    {
      what: 'librsvg through sharp, the same SVG, one run',
      ms: librsvg,
      ratio: isle / librsvg,
      reference: 'of it',
    },
  ]);
}

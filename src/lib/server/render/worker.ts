import { setImmediate } from 'node:timers/promises';
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import { constants, deflateRawSync } from 'node:zlib';
import { Resvg } from '@resvg/resvg-js';
import sharp from 'sharp';
import type {
  BandReply,
  BandRequest,
  LayerStep,
  PixelsRequest,
  RecolourRequest,
  SharedPicture,
  SoftMask,
} from '../../contract/render';
import { adler32, filterRows } from '../../core/formats/png';
import { alphaOf, joinCovers, layOver, type Cover, type Raster } from '../../core/raster/composite';
import { premultiply } from '../../core/raster/alpha';
import { recolourPicture } from '../../core/raster/recolour';
import { samplePlane } from '../../core/raster/plane';
import { resample } from '../../core/raster/resample';
import { averageOf, samplePeriodic, samplePicture } from '../../core/raster/sample';
import { luminanceMask, paintedMask } from '../../core/raster/soft-mask';

/** Fast deflate: flat art packs well at any level, and the higher ones cost seconds on a large page. */
const DEFLATE_LEVEL = 3;

/**
 * The renderer's pictures live outside the heap and V8 does not count them: without a collection after each band a
 * large page piles up gigabytes of them.
 */
setFlagsFromString('--expose-gc');
const collect = runInNewContext('gc') as () => void;

/** Entry of a render thread: draws one band and packs its rows. */
export default async function renderBand(request: BandRequest): Promise<BandReply> {
  const reply = await bandOf(request);
  await giveBack();
  return reply;
}

/** Bytes that the renderer made since they were last given back. */
let made = 0;
/** A band of many layers makes gigabytes; from so many bytes on they are given back on the way. */
const MOST_MADE = 120_000_000;

async function giveBack(): Promise<void> {
  made = 0;
  collect();
  // What was collected is given back by finalisers, which run when the thread's event loop turns.
  await setImmediate();
}

/** A picture through a look, as PNG bytes. */
export async function recolour({ bytes, look }: RecolourRequest): Promise<Uint8Array> {
  const { data, info } = await sharp(bytes).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  const { width, height } = info;
  recolourPicture({ width, height, data }, look);
  return sharp(data, { raw: { width, height, channels: 4 } })
    .png({ compressionLevel: 3 })
    .toBuffer();
}

/** An SVG drawn at its own size, as PNG bytes. */
export function png({ svg }: { svg: string }): Uint8Array {
  return new Resvg(svg, { font: { loadSystemFonts: false }, logLevel: 'off' }).render().asPng();
}

/** A picture decoded into shared memory, premultiplied, at the share of its size that was asked for. */
export async function pixels({ bytes, share, edges }: PixelsRequest): Promise<SharedPicture> {
  const image = sharp(bytes, { failOn: 'none' }).ensureAlpha();
  const { width = 1, height = 1 } = await image.metadata();
  const side = (length: number): number => Math.max(1, Math.round(length * share));
  const [wide, high] = [side(width), side(height)];
  const shrinks = wide < width || high < height;
  // One that ends at its edges is sized by the decoder; what goes on beyond them by our own hand, which knows how.
  const sized = shrinks && edges === 'clamp' ? image.resize(wide, high, { fit: 'fill' }) : image;
  const { data, info } = await sized.raw().toBuffer({ resolveWithObject: true });
  premultiply(data);
  const decoded: Raster = { width: info.width, height: info.height, data };
  const picture = shrinks && edges !== 'clamp' ? resample(decoded, wide, high, edges) : decoded;
  const shared = new SharedArrayBuffer(picture.data.length);
  new Uint8Array(shared).set(picture.data);
  return { width: picture.width, height: picture.height, pixels: shared };
}

/** Draws one band and packs its rows. */
export async function bandOf(request: BandRequest): Promise<BandReply> {
  const canvas = drawn(request.base);
  if (canvas.width !== request.width || canvas.height !== request.height)
    throw new Error(
      `A band came out as ${canvas.width} × ${canvas.height} px, not ${request.width} × ${request.height}.`,
    );
  for (const step of request.steps) {
    if (step.kind === 'layer') layStep(canvas, step, 0, 0);
    else {
      const group = blank(step.width, step.height);
      for (const layer of step.steps) {
        layStep(group, layer, step.x, step.y);
        if (made > MOST_MADE) await giveBack();
      }
      layOver(canvas, group, step.x, step.y, { cover: coverOfAll(step.masks, step) });
    }
    if (made > MOST_MADE) await giveBack();
  }
  const rows = filterRows(canvas.data, canvas.width, request.alpha);
  const finishFlush = request.last ? constants.Z_FINISH : constants.Z_FULL_FLUSH;
  const deflated = deflateRawSync(rows, { level: DEFLATE_LEVEL, finishFlush });
  return { deflated, adler: adler32(rows), length: rows.length };
}

/** Lays one layer over a canvas whose upper left corner is at (left, top) of the band. */
function layStep(canvas: Raster, step: LayerStep, left: number, top: number): void {
  const outline = step.outline === null ? null : alphaOf(drawn(step.outline));
  const cover = joinCovers(outline, step.mask && coverOf(step.mask, step));
  const { x, y, blend } = step;
  const source = washed(step, sourceOf(step));
  if (step.ground === null) {
    layOver(canvas, source, x - left, y - top, { cover, opacity: step.opacity, blend });
    return;
  }
  const layer = drawn(step.ground);
  layOver(layer, source, 0, 0, { opacity: step.opacity });
  layOver(canvas, layer, x - left, y - top, { cover, blend });
}

function sourceOf({ source, width, height }: LayerStep): Raster {
  switch (source.kind) {
    case 'drawing':
      return drawn(source.svg);
    case 'picture':
      return source.picture
        ? samplePicture(rasterOf(source.picture), source.toPicture, width, height)
        : blank(width, height);
    case 'plane': {
      const pictures = source.pictures.map((picture) => picture && rasterOf(picture));
      return samplePlane(source.plane, pictures, source.toPlane, width, height);
    }
    case 'tile': {
      const tile = drawn(source.svg);
      return source.toTile
        ? samplePeriodic(tile, source.toTile, width, height)
        : averageOf(tile, width, height);
    }
  }
}

function washed({ wash }: LayerStep, source: Raster): Raster {
  if (!wash) return source;
  const { width, height } = source;
  const under = wash.opaque ? blank(width, height) : { width, height, data: source.data.slice() };
  layOver(under, drawn(wash.svg), 0, 0, { cover: alphaOf(source) });
  return under;
}

function coverOf(mask: SoftMask, { width, height }: { width: number; height: number }): Cover {
  switch (mask.kind) {
    case 'drawing':
      return alphaOf(drawn(mask.svg));
    case 'painted':
      return bytes(paintedMask(mask.strokes, mask.toMask, width, height, mask.starts));
    case 'picture': {
      const picture = mask.picture
        ? samplePicture(rasterOf(mask.picture), mask.toPicture, width, height)
        : blank(width, height);
      return bytes(luminanceMask(picture, mask.inverted));
    }
  }
}

const coverOfAll = (masks: readonly SoftMask[], size: { width: number; height: number }): Cover | null =>
  masks.reduce<Cover | null>((cover, mask) => joinCovers(cover, coverOf(mask, size)), null);

const bytes = (data: Uint8Array): Cover => ({ data, step: 1, first: 0 });

const rasterOf = ({ width, height, pixels: shared }: SharedPicture): Raster => ({
  width,
  height,
  data: new Uint8Array(shared),
});

function blank(width: number, height: number): Raster {
  made += width * height * 4;
  return { width, height, data: new Uint8Array(width * height * 4) };
}

function drawn(svg: string): Raster {
  const { width, height, pixels } = new Resvg(svg, {
    font: { loadSystemFonts: false },
    logLevel: 'off',
  }).render();
  made += pixels.length;
  return { width, height, data: pixels };
}

import { setImmediate } from 'node:timers/promises';
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import { constants, deflateRawSync } from 'node:zlib';
import { Resvg } from '@resvg/resvg-js';
import sharp from 'sharp';
import type { BandReply, BandRequest, RecolourRequest, RenderStep } from '../../contract/render';
import { adler32, filterRows } from '../../core/formats/png';
import { layOver, type Raster } from '../../core/raster/composite';
import { recolourPicture } from '../../core/raster/recolour';
import { averageOf, samplePeriodic } from '../../core/raster/sample';

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
  const reply = bandOf(request);
  collect();
  // What was collected is given back by finalisers, which run when the thread's event loop turns.
  await setImmediate();
  return reply;
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

function bandOf(request: BandRequest): BandReply {
  const canvas = drawn(request.base);
  if (canvas.width !== request.width || canvas.height !== request.height)
    throw new Error(
      `A band came out as ${canvas.width} × ${canvas.height} px, not ${request.width} × ${request.height}.`,
    );
  for (const step of request.steps) {
    const mask = step.mask === null ? null : drawn(step.mask);
    layOver(canvas, layerOf(step), step.x, step.y, mask, 1);
  }
  const rows = filterRows(canvas.data, canvas.width, request.alpha);
  const finishFlush = request.last ? constants.Z_FINISH : constants.Z_FULL_FLUSH;
  const deflated = deflateRawSync(rows, { level: DEFLATE_LEVEL, finishFlush });
  return { deflated, adler: adler32(rows), length: rows.length };
}

function layerOf({ source, width, height }: RenderStep): Raster {
  if (source.kind === 'drawing') return drawn(source.svg);
  const tile = drawn(source.svg);
  const pattern = source.toTile
    ? samplePeriodic(tile, source.toTile, width, height)
    : averageOf(tile, width, height);
  const layer: Raster =
    source.ground === null
      ? { width, height, data: new Uint8Array(width * height * 4) }
      : drawn(source.ground);
  layOver(layer, pattern, 0, 0, null, source.opacity);
  return layer;
}

function drawn(svg: string): Raster {
  const { width, height, pixels } = new Resvg(svg, {
    font: { loadSystemFonts: false },
    logLevel: 'off',
  }).render();
  return { width, height, data: pixels };
}

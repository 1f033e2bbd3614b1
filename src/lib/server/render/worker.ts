import { constants, deflateRawSync } from 'node:zlib';
import { Resvg } from '@resvg/resvg-js';
import type { BandReply, BandRequest } from '../../contract/render';
import { adler32, filterRows } from '../../core/formats/png';
import { layOver, type Raster } from '../../core/raster/composite';

/** Fast deflate: flat art packs well at any level, and the higher ones cost seconds on a large page. */
const DEFLATE_LEVEL = 3;

/** Entry of a render thread: draws one band and packs its rows. */
export default function renderBand(request: BandRequest): BandReply {
  const canvas = drawn(request.base);
  if (canvas.width !== request.width || canvas.height !== request.height)
    throw new Error(`A band came out as ${canvas.width} × ${canvas.height} px, not ${request.width} × ${request.height}.`);
  for (const step of request.steps) {
    const mask = step.mask === null ? null : drawn(step.mask);
    layOver(canvas, drawn(step.svg), step.x, step.y, mask, step.opacity);
  }
  const rows = filterRows(canvas.data, canvas.width, request.alpha);
  const finishFlush = request.last ? constants.Z_FINISH : constants.Z_FULL_FLUSH;
  const deflated = deflateRawSync(rows, { level: DEFLATE_LEVEL, finishFlush });
  return { deflated, adler: adler32(rows), length: rows.length };
}

function drawn(svg: string): Raster {
  const { width, height, pixels } = new Resvg(svg, { font: { loadSystemFonts: false }, logLevel: 'off' }).render();
  return { width, height, data: pixels };
}

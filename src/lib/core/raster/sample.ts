import { apply, type Affine } from '../geom/affine';
import { modulo } from '../num/tolerance';
import type { Raster } from './composite';

/**
 * A periodic picture seen through a matrix: each of the `width` × `height` output pixels takes four samples at its
 * quarter points, each bilinear with wrap over the tile's edges, so that no edge of the tile can show. `toTile` takes
 * output px to tile px. The tile must be drawn at about the output's own resolution; this filter does not shrink.
 */
export function samplePeriodic(tile: Raster, toTile: Affine, width: number, height: number): Raster {
  const data = new Uint8Array(width * height * 4);
  const sum = new Float64Array(4);
  for (let y = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1) {
      sum.fill(0);
      for (const dy of [0.25, 0.75])
        for (const dx of [0.25, 0.75]) addSample(tile, apply(toTile, { x: x + dx, y: y + dy }), sum);
      const to = (y * width + x) * 4;
      for (let channel = 0; channel < 4; channel += 1) data[to + channel] = Math.round(sum[channel]! / 4);
    }
  }
  return { width, height, data };
}

/** A picture of one colour: the mean of `tile`. What a pattern finer than a pixel looks like. */
export function averageOf(tile: Raster, width: number, height: number): Raster {
  const sum = [0, 0, 0, 0];
  for (let at = 0; at < tile.data.length; at += 1) sum[at % 4]! += tile.data[at]!;
  const mean = sum.map((value) => Math.round((value * 4) / tile.data.length));
  const data = new Uint8Array(width * height * 4);
  for (let at = 0; at < data.length; at += 1) data[at] = mean[at % 4]!;
  return { width, height, data };
}

function addSample(tile: Raster, at: { x: number; y: number }, sum: Float64Array): void {
  const x = modulo(at.x - 0.5, tile.width);
  const y = modulo(at.y - 0.5, tile.height);
  const left = Math.min(tile.width - 1, Math.floor(x));
  const top = Math.min(tile.height - 1, Math.floor(y));
  const right = (left + 1) % tile.width;
  const below = (top + 1) % tile.height;
  const fx = x - left;
  const fy = y - top;
  const corners = [
    top * tile.width + left,
    top * tile.width + right,
    below * tile.width + left,
    below * tile.width + right,
  ];
  const weights = [(1 - fx) * (1 - fy), fx * (1 - fy), (1 - fx) * fy, fx * fy];
  for (let corner = 0; corner < 4; corner += 1) {
    const from = corners[corner]! * 4;
    for (let channel = 0; channel < 4; channel += 1)
      sum[channel]! += tile.data[from + channel]! * weights[corner]!;
  }
}

/**
 * A picture laid once through a matrix: as {@link samplePeriodic}, but beyond its edges there is nothing, and one sample
 * is taken where it is enlarged. It should be at most twice as fine as the output; see {@link halvings}.
 */
export function samplePicture(picture: Raster, toPicture: Affine, width: number, height: number): Raster {
  const data = new Uint8Array(width * height * 4);
  const sum = new Float64Array(4);
  const { a, b, c, d, e, f } = toPicture;
  // Where a picture is enlarged one sample of it says as much as four.
  const places = Math.abs(a * d - b * c) <= 1 ? [0.5] : [0.25, 0.75];
  const count = places.length ** 2;
  for (let y = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1) {
      sum.fill(0);
      for (const dy of places)
        for (const dx of places)
          addInside(picture, a * (x + dx) + c * (y + dy) + e, b * (x + dx) + d * (y + dy) + f, sum);
      const to = (y * width + x) * 4;
      for (let channel = 0; channel < 4; channel += 1) data[to + channel] = Math.round(sum[channel]! / count);
    }
  }
  return { width, height, data };
}

/** How often a picture is halved before it is drawn at `scale` output px to its own px: the rest is 1/2 to 1. */
export const halvings = (scale: number): number =>
  Math.max(0, Math.floor(Math.log2(1 / Math.max(scale, 1e-6))));

/** One bilinear sample; the outermost half pixel keeps the edge's own colour, so that a picture never fades inwards. */
function addInside({ width, height, data }: Raster, atX: number, atY: number, sum: Float64Array): void {
  if (atX < 0 || atY < 0 || atX > width || atY > height) return;
  const x = Math.max(0, Math.min(width - 1, atX - 0.5));
  const y = Math.max(0, Math.min(height - 1, atY - 0.5));
  const left = Math.floor(x);
  const top = Math.floor(y);
  const fx = x - left;
  const fy = y - top;
  const row = top * width;
  const below = Math.min(height - 1, top + 1) * width;
  const right = Math.min(width - 1, left + 1);
  const one = (row + left) * 4;
  const two = (row + right) * 4;
  const three = (below + left) * 4;
  const four = (below + right) * 4;
  const [p, q, r, s] = [(1 - fx) * (1 - fy), fx * (1 - fy), (1 - fx) * fy, fx * fy];
  for (let channel = 0; channel < 4; channel += 1)
    sum[channel]! +=
      data[one + channel]! * p +
      data[two + channel]! * q +
      data[three + channel]! * r +
      data[four + channel]! * s;
}

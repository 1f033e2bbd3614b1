import type { Affine } from '../geom/affine';
import type { Raster } from './composite';
import { byteOf, wordsOf } from './words';

/**
 * A periodic picture seen through a matrix: bilinear samples with wrap over the tile's edges, so that no edge of the
 * tile can show. `toTile` takes output px to tile px. The tile must be drawn at about the output's own resolution; this
 * filter does not shrink.
 */
export function samplePeriodic(tile: Raster, toTile: Affine, width: number, height: number): Raster {
  return sampled(tile, toTile, { width, height, wraps: true, places: placesOf(toTile) });
}

/**
 * A picture laid once through a matrix: as {@link samplePeriodic}, but beyond its edges there is nothing. It should be
 * at most twice as fine as the output; see {@link halvings}.
 */
export function samplePicture(picture: Raster, toPicture: Affine, width: number, height: number): Raster {
  return sampled(picture, toPicture, { width, height, wraps: false, places: placesOf(toPicture) });
}

/**
 * How far from its middle a pixel is sampled, in output px, where one of it is `step` px of the picture: not at all
 * where the picture lies 1 : 1 or is enlarged, for a mean of samples there would only soften it.
 */
export const spreadOf = (step: number): number => {
  const spread = 0.25 * Math.min(1, Math.max(0, 2 * (step - 1)));
  return spread < 1e-3 ? 0 : spread;
};

/** How often a picture is halved before it is drawn at `scale` output px to its own px: the rest is 1/2 to 1. */
export const halvings = (scale: number): number =>
  Math.max(0, Math.floor(Math.log2(1 / Math.max(scale, 1e-6))));

/** A picture of one colour: the mean of `tile`. What a pattern finer than a pixel looks like. */
export function averageOf(tile: Raster, width: number, height: number): Raster {
  const sum = [0, 0, 0, 0];
  for (let at = 0; at < tile.data.length; at += 1) sum[at % 4]! += tile.data[at]!;
  const mean = sum.map((value) => Math.round((value * 4) / tile.data.length));
  const data = new Uint8Array(width * height * 4);
  for (let at = 0; at < data.length; at += 1) data[at] = mean[at % 4]!;
  return { width, height, data };
}

/** Where an output pixel is sampled, across and down: every pair of these. */
function placesOf({ a, b, c, d }: Affine): number[] {
  const spread = spreadOf(Math.sqrt(Math.abs(a * d - b * c)));
  return spread === 0 ? [0.5] : [0.5 - spread, 0.5 + spread];
}

type Sampling = { width: number; height: number; wraps: boolean; places: readonly number[] };

/**
 * Bilinear samples of a picture that repeats (`wraps`) or ends at its edges. The outermost half pixel of one that ends
 * keeps the edge's own colour, so that a picture never fades inwards.
 */
function sampled(source: Raster, matrix: Affine, { width, height, wraps, places }: Sampling): Raster {
  const { a, b, c, d, e, f } = matrix;
  const { width: wide, height: high } = source;
  const pixels = wordsOf(source.data);
  const data = new Uint8Array(width * height * 4);
  const count = places.length ** 2;
  const across = places.flatMap((dy) => places.map((dx) => a * dx + c * dy + e - 0.5));
  const down = places.flatMap((dy) => places.map((dx) => b * dx + d * dy + f - 0.5));
  let to = 0;
  // Millions of pixels pass here for a page: plain numbers only, and no weighing where the picture is flat.
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1, to += 4) {
      let red = 0;
      let green = 0;
      let blue = 0;
      let alpha = 0;
      for (let place = 0; place < count; place += 1) {
        let u = a * x + c * y + across[place]!;
        let v = b * x + d * y + down[place]!;
        if (wraps) {
          u -= wide * Math.floor(u / wide);
          v -= high * Math.floor(v / high);
          // A hair below zero is rounded up to the full width.
          if (u >= wide) u = 0;
          if (v >= high) v = 0;
        } else {
          if (u < -0.5 || v < -0.5 || u > wide - 0.5 || v > high - 0.5) continue;
          u = u < 0 ? 0 : u > wide - 1 ? wide - 1 : u;
          v = v < 0 ? 0 : v > high - 1 ? high - 1 : v;
        }
        const left = Math.trunc(u);
        const top = Math.trunc(v);
        const right = left + 1 < wide ? left + 1 : wraps ? 0 : left;
        const upper = top * wide;
        const lower = top + 1 < high ? upper + wide : wraps ? 0 : upper;
        const p = pixels[upper + left]!;
        const q = pixels[upper + right]!;
        const r = pixels[lower + left]!;
        const s = pixels[lower + right]!;
        if (p === q && p === r && p === s) {
          red += byteOf(p, 0);
          green += byteOf(p, 1);
          blue += byteOf(p, 2);
          alpha += byteOf(p, 3);
          continue;
        }
        const fx = u - left;
        const fy = v - top;
        const atP = (1 - fx) * (1 - fy);
        const atQ = fx * (1 - fy);
        const atR = (1 - fx) * fy;
        const atS = fx * fy;
        red += byteOf(p, 0) * atP + byteOf(q, 0) * atQ + byteOf(r, 0) * atR + byteOf(s, 0) * atS;
        green += byteOf(p, 1) * atP + byteOf(q, 1) * atQ + byteOf(r, 1) * atR + byteOf(s, 1) * atS;
        blue += byteOf(p, 2) * atP + byteOf(q, 2) * atQ + byteOf(r, 2) * atR + byteOf(s, 2) * atS;
        alpha += byteOf(p, 3) * atP + byteOf(q, 3) * atQ + byteOf(r, 3) * atR + byteOf(s, 3) * atS;
      }
      data[to] = Math.round(red / count);
      data[to + 1] = Math.round(green / count);
      data[to + 2] = Math.round(blue / count);
      data[to + 3] = Math.round(alpha / count);
    }
  return { width, height, data };
}

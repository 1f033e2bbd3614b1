import type { Raster } from '../../src/lib/core/raster/composite';
import { seededRandom } from '../../src/lib/core/num/random';

/** An opaque picture whose red, green and blue a function gives. */
export function rasterOf(width: number, height: number, colour: (x: number, y: number) => number[]): Raster {
  const data = new Uint8Array(width * height * 4);
  for (let at = 0; at < width * height; at += 1) {
    const [r = 0, g = r, b = r] = colour(at % width, Math.floor(at / width));
    data.set(
      [r, g, b, 255].map((value) => Math.max(0, Math.min(255, Math.round(value)))),
      at * 4,
    );
  }
  return { width, height, data };
}

/** Opaque noise, each channel by itself. */
export function noisePicture(width: number, height: number, seed: number, spread = 60): Raster {
  const random = seededRandom(seed);
  return rasterOf(width, height, () => [0, 1, 2].map(() => 128 + (random() - 0.5) * 2 * spread));
}

/** Soft noise, as grass or plaster: blurred, with its contrast put back, and a slow change of light from left to right. A seamless one repeats by itself. */
export function texture(
  width: number,
  height: number,
  seed: number,
  { light = 40, seamless = false } = {},
): Raster {
  const random = seededRandom(seed);
  const wide = width + 2;
  const grain = Float64Array.from({ length: wide * (height + 2) }, () => random() - 0.5);
  const at = (x: number, y: number): number =>
    seamless
      ? grain[((y + height) % height) * wide + ((x + width) % width)]!
      : grain[(y + 1) * wide + x + 1]!;
  return rasterOf(width, height, (x, y) => {
    let sum = 0;
    for (let dy = -1; dy <= 1; dy += 1) for (let dx = -1; dx <= 1; dx += 1) sum += at(x + dx, y + dy);
    const value = 128 + sum * 35 + ((x / width) * 2 - 1) * light;
    return [value, value * 0.9 + 10, value * 0.7];
  });
}

export const pixelOf = ({ width, data }: Raster, x: number, y: number): number[] =>
  Array.from(data.subarray((y * width + x) * 4, (y * width + x) * 4 + 4));

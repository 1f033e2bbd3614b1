import { chain, rotation, translation, type Affine } from '../geom/affine';
import type { Region } from '../recipe/pictured';
import type { Raster } from '../raster/composite';

/** Px of a region, from its upper left corner → px of its picture. */
export const regionMatrix = ({ x, y, width, height, turn }: Region): Affine =>
  chain(translation(x, y), rotation(turn), translation(-width / 2, -height / 2));

/** One channel value a sample; what is sampled is written here. */
export type Sample = Float64Array;

/**
 * A picture between its pixels, by cubic convolution with a = −1/2 (Keys 1981): exact at the pixels themselves, so a
 * region that lies upright on whole pixels is cut out as it is. Beyond its edges the picture goes on mirrored. `places` has
 * x and y of each of `count` places in px; four channels of each are written.
 */
export function samplesCubic(picture: Raster, places: Float64Array, count: number, into: Float64Array): void {
  const { width, height, data } = picture;
  const row = width * 4;
  for (let place = 0; place < count; place += 1) {
    const u = places[2 * place]! - 0.5;
    const v = places[2 * place + 1]! - 0.5;
    const to = 4 * place;
    let left = Math.floor(u);
    let top = Math.floor(v);
    let fx = u - left;
    let fy = v - top;
    if (fx > 1 - 1e-9) {
      left += 1;
      fx = 0;
    }
    if (fy > 1 - 1e-9) {
      top += 1;
      fy = 0;
    }
    if (fx < 1e-9 && fy < 1e-9) {
      const at = (mirrored(top, height) * width + mirrored(left, width)) * 4;
      for (let channel = 0; channel < 4; channel += 1) into[to + channel] = data[at + channel]!;
      continue;
    }
    const x2 = fx * fx;
    const x3 = x2 * fx;
    const w0 = -0.5 * x3 + x2 - 0.5 * fx;
    const w1 = 1.5 * x3 - 2.5 * x2 + 1;
    const w2 = -1.5 * x3 + 2 * x2 + 0.5 * fx;
    const w3 = 0.5 * x3 - 0.5 * x2;
    const y2 = fy * fy;
    const y3 = y2 * fy;
    const v0 = -0.5 * y3 + y2 - 0.5 * fy;
    const v1 = 1.5 * y3 - 2.5 * y2 + 1;
    const v2 = -1.5 * y3 + 2 * y2 + 0.5 * fy;
    const v3 = 0.5 * y3 - 0.5 * y2;
    const within = left >= 1 && left + 2 < width && top >= 1 && top + 2 < height;
    const c1 = (within ? left : mirrored(left, width)) * 4;
    const c0 = within ? c1 - 4 : mirrored(left - 1, width) * 4;
    const c2 = within ? c1 + 4 : mirrored(left + 1, width) * 4;
    const c3 = within ? c1 + 8 : mirrored(left + 2, width) * 4;
    const r1 = (within ? top : mirrored(top, height)) * row;
    const r0 = within ? r1 - row : mirrored(top - 1, height) * row;
    const r2 = within ? r1 + row : mirrored(top + 1, height) * row;
    const r3 = within ? r1 + 2 * row : mirrored(top + 2, height) * row;
    for (let channel = 0; channel < 4; channel += 1) {
      const p0 = c0 + channel;
      const p1 = c1 + channel;
      const p2 = c2 + channel;
      const p3 = c3 + channel;
      into[to + channel] =
        v0 * (data[r0 + p0]! * w0 + data[r0 + p1]! * w1 + data[r0 + p2]! * w2 + data[r0 + p3]! * w3) +
        v1 * (data[r1 + p0]! * w0 + data[r1 + p1]! * w1 + data[r1 + p2]! * w2 + data[r1 + p3]! * w3) +
        v2 * (data[r2 + p0]! * w0 + data[r2 + p1]! * w1 + data[r2 + p2]! * w2 + data[r2 + p3]! * w3) +
        v3 * (data[r3 + p0]! * w0 + data[r3 + p1]! * w1 + data[r3 + p2]! * w2 + data[r3 + p3]! * w3);
    }
  }
}

const onePlace = new Float64Array(2);

/** One place of a picture as {@link samplesCubic} says. */
export function sampleCubic(picture: Raster, x: number, y: number, into: Sample): void {
  onePlace[0] = x;
  onePlace[1] = y;
  samplesCubic(picture, onePlace, 1, into);
}

/** Where a place beyond a picture's edges is in it, when it goes on mirrored. */
export function mirrored(at: number, size: number): number {
  if (at >= 0 && at < size) return at;
  const period = 2 * size;
  const rest = ((at % period) + period) % period;
  return rest < size ? rest : period - 1 - rest;
}

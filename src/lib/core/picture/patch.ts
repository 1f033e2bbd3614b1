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
 * region that lies upright on whole pixels is cut out as it is. Beyond its edges the picture goes on mirrored.
 */
export function sampleCubic(picture: Raster, x: number, y: number, into: Sample): void {
  const { width, height, data } = picture;
  const u = x - 0.5;
  const v = y - 0.5;
  let left = Math.floor(u);
  let top = Math.floor(v);
  let fx = u - left;
  let fy = v - top;
  if (fx > 1 - 1e-9) [left, fx] = [left + 1, 0];
  if (fy > 1 - 1e-9) [top, fy] = [top + 1, 0];
  if (fx < 1e-9 && fy < 1e-9) {
    const at = (mirrored(top, height) * width + mirrored(left, width)) * 4;
    for (let channel = 0; channel < 4; channel += 1) into[channel] = data[at + channel]!;
    return;
  }
  const [x0, x1, x2, x3] = weights(fx);
  const down = weights(fy);
  const [c0, c1, c2, c3] = [
    mirrored(left - 1, width) * 4,
    mirrored(left, width) * 4,
    mirrored(left + 1, width) * 4,
    mirrored(left + 2, width) * 4,
  ];
  into.fill(0);
  for (let row = 0; row < 4; row += 1) {
    const weight = down[row]!;
    if (weight === 0) continue;
    const at = mirrored(top - 1 + row, height) * width * 4;
    for (let channel = 0; channel < 4; channel += 1)
      into[channel]! +=
        weight *
        (data[at + c0 + channel]! * x0 +
          data[at + c1 + channel]! * x1 +
          data[at + c2 + channel]! * x2 +
          data[at + c3 + channel]! * x3);
  }
}

/** The four weights of cubic convolution at `t` between the second and the third pixel. */
function weights(t: number): [number, number, number, number] {
  const t2 = t * t;
  const t3 = t2 * t;
  return [
    -0.5 * t3 + t2 - 0.5 * t,
    1.5 * t3 - 2.5 * t2 + 1,
    -1.5 * t3 + 2 * t2 + 0.5 * t,
    0.5 * t3 - 0.5 * t2,
  ];
}

/** Where a place beyond a picture's edges is in it, when it goes on mirrored. */
export function mirrored(at: number, size: number): number {
  if (at >= 0 && at < size) return at;
  const period = 2 * size;
  const rest = ((at % period) + period) % period;
  return rest < size ? rest : period - 1 - rest;
}

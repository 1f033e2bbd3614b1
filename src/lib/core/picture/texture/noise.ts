import type { Size } from '../../lattice/size';
import { modulo } from '../../num/tolerance';

/*
 * Everything here is made of whole numbers, sums, products, quotients and square roots alone, which IEEE 754 rounds in
 * one way: the same numbers make the same bytes on every machine.
 */

/** 32 bits that look drawn by lot, from two places and the number of a try (lowbias32, Wellons 2018, public domain). */
export function hash(x: number, y: number, seed: number): number {
  let bits = Math.imul(x, 0x9e3779b1) ^ Math.imul(y, 0x85ebca77) ^ Math.imul(seed + 1, 0xc2b2ae3d);
  bits = Math.imul(bits ^ (bits >>> 16), 0x7feb352d);
  bits = Math.imul(bits ^ (bits >>> 15), 0x846ca68b);
  return (bits ^ (bits >>> 16)) >>> 0;
}

/** The same as a number from 0 to 1. */
export const lot = (x: number, y: number, seed: number): number => hash(x, y, seed) / 4_294_967_296;

/** A direction of length 1, degrees clockwise from rightwards; by its series, which is exact to 1e-9 here. */
export function direction(degrees: number): { x: number; y: number } {
  const turn = modulo(degrees, 360);
  const quarter = Math.floor((turn + 45) / 90);
  const t = ((turn - quarter * 90) * 3.141592653589793) / 180;
  const t2 = t * t;
  const sin = t * (1 - (t2 / 6) * (1 - (t2 / 20) * (1 - (t2 / 42) * (1 - (t2 / 72) * (1 - t2 / 110)))));
  const cos = 1 - (t2 / 2) * (1 - (t2 / 12) * (1 - (t2 / 30) * (1 - (t2 / 56) * (1 - t2 / 90))));
  const [x, y] = [
    [cos, sin],
    [-sin, cos],
    [-cos, -sin],
    [sin, -cos],
  ][quarter % 4] as [number, number];
  return { x, y };
}

/** The eight gradients, all of length 1. */
const DIAGONAL = 0.7071067811865476;
const ACROSS = Float64Array.of(1, -1, 0, 0, DIAGONAL, DIAGONAL, -DIAGONAL, -DIAGONAL);
const DOWN = Float64Array.of(0, 0, 1, -1, DIAGONAL, -DIAGONAL, DIAGONAL, -DIAGONAL);

/** Gradient noise that repeats after whole cells (Perlin 2002, "Improving noise": its fade of the fifth degree), about −0.7 to 0.7. */
export class Noise {
  readonly slopesX: Float64Array;
  readonly slopesY: Float64Array;

  constructor(
    readonly across: number,
    readonly down: number,
    seed: number,
  ) {
    const gradients = Uint8Array.from(
      { length: across * down },
      (_, at) => hash(at % across, Math.floor(at / across), seed) >>> 29,
    );
    this.slopesX = Float64Array.from(gradients, (gradient) => ACROSS[gradient]!);
    this.slopesY = Float64Array.from(gradients, (gradient) => DOWN[gradient]!);
  }

  /** Its value at a place in cells. */
  at(u: number, v: number): number {
    const { across, down, slopesX, slopesY } = this;
    const left = Math.floor(u);
    const top = Math.floor(v);
    const x = u - left;
    const y = v - top;
    const column = left >= 0 && left < across ? left : modulo(left, across);
    const line = top >= 0 && top < down ? top : modulo(top, down);
    const row = line * across;
    const below = line + 1 === down ? 0 : row + across;
    const next = column + 1 === across ? 0 : column + 1;
    const a = slopesX[row + column]! * x + slopesY[row + column]! * y;
    const b = slopesX[row + next]! * (x - 1) + slopesY[row + next]! * y;
    const c = slopesX[below + column]! * x + slopesY[below + column]! * (y - 1);
    const d = slopesX[below + next]! * (x - 1) + slopesY[below + next]! * (y - 1);
    const fx = x * x * x * (x * (x * 6 - 15) + 10);
    const fy = y * y * y * (y * (y * 6 - 15) + 10);
    const upper = a + (b - a) * fx;
    return upper + (c + (d - c) * fx - upper) * fy;
  }
}

/** Adds a row of noise at `v` cells down, `step` cells from pixel to pixel, times `weight`: the same as {@link Noise.at}, many times as fast. */
function addRow(noise: Noise, v: number, step: number, weight: number, out: Float64Array): void {
  const { across, down, slopesX, slopesY } = noise;
  const top = Math.floor(v);
  const y = v - top;
  const line = modulo(top, down);
  const row = line * across;
  const below = line + 1 === down ? 0 : row + across;
  const fy = y * y * y * (y * (y * 6 - 15) + 10);
  let held = -1;
  let [ax, bx, cx, dx, ay, by, cy, dy] = [0, 0, 0, 0, 0, 0, 0, 0];
  for (let at = 0; at < out.length; at += 1) {
    const u = at * step;
    const left = Math.floor(u);
    if (left !== held) {
      held = left;
      const column = left < across ? left : left % across;
      const next = column + 1 === across ? 0 : column + 1;
      ax = slopesX[row + column]!;
      bx = slopesX[row + next]!;
      cx = slopesX[below + column]!;
      dx = slopesX[below + next]!;
      ay = slopesY[row + column]! * y;
      by = slopesY[row + next]! * y;
      cy = slopesY[below + column]! * (y - 1);
      dy = slopesY[below + next]! * (y - 1);
    }
    const x = u - left;
    const fx = x * x * x * (x * (x * 6 - 15) + 10);
    const a = ax * x + ay;
    const c = cx * x + cy;
    const upper = a + (bx * (x - 1) + by - a) * fx;
    out[at]! += (upper + (c + (dx * (x - 1) + dy - c) * fx - upper) * fy) * weight;
  }
}

/** Gradient noise of slopes of length 1 is never further from nought: half the root of 2, and a little for what is rounded. */
const MOST = 0.7072;

/** Noise at several sizes, each half of the last and weaker by `detail`; about −1 to 1 over a picture of `size` px. */
export class Fractal {
  private readonly layers: { noise: Noise; across: number; down: number; weight: number; rest: number }[] =
    [];

  constructor(size: Size, seed: number, { width, height }: Size, detail: number, octaves = 5) {
    let [weight, sum] = [1, 0];
    for (let octave = 0; octave < octaves; octave += 1) {
      const across = Math.max(1, Math.round((size.width / width) * 2 ** octave));
      const down = Math.max(1, Math.round((size.height / height) * 2 ** octave));
      // What is finer than two pixels is no more than grain.
      if (octave > 0 && Math.max(across / size.width, down / size.height) > 0.5) break;
      this.layers.push({
        noise: new Noise(across, down, seed * 31 + octave),
        across: across / size.width,
        down: down / size.height,
        weight,
        rest: 0,
      });
      sum += weight * weight;
      weight *= detail;
    }
    for (const layer of this.layers) layer.weight *= 1.6 / Math.sqrt(sum);
    let rest = 0;
    for (const layer of this.layers.toReversed()) {
      layer.rest = rest;
      rest += layer.weight * MOST;
    }
  }

  /** Its values along the row `y`, one a pixel. */
  row(y: number, out: Float64Array): Float64Array {
    out.fill(0);
    for (const { noise, across, down, weight } of this.layers) addRow(noise, y * down, across, weight, out);
    return out;
  }

  /** Its value at a place in px; no number where it lies further than `far` from nought, which mostly is told sooner. */
  near(x: number, y: number, far: number): number {
    const { layers } = this;
    let sum = 0;
    for (let index = 0; index < layers.length; index += 1) {
      const { noise, across, down, weight, rest } = layers[index]!;
      sum += noise.at(x * across, y * down) * weight;
      if (sum > far + rest || sum < -far - rest) return NaN;
    }
    return sum;
  }
}

/** White noise, one value a pixel: whole numbers of −127.5 to 127.5. */
export function grainOf({ width, height }: Size, seed: number): Float32Array {
  const out = new Float32Array(width * height);
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1) out[y * width + x] = (hash(x, y, seed) >>> 24) - 127.5;
  return out;
}

/**
 * For each pixel the sum of `count` values that follow it along a direction, over the edges, between pixels by their
 * shares: runs are doubled, so the work grows with the logarithm of the count.
 */
export function runsOf(
  values: Float32Array,
  size: Size,
  count: number,
  along: { x: number; y: number },
): Float32Array {
  let run = values;
  let length = 1;
  let sum: Float32Array | null = null;
  let summed = 0;
  for (let rest = count; rest > 0; rest = Math.floor(rest / 2)) {
    if (rest % 2 === 1) {
      sum = sum === null ? run : plusShifted(sum, run, size, along, summed);
      summed += length;
    }
    if (rest > 1) run = plusShifted(run, run, size, along, length);
    length *= 2;
  }
  return sum ?? values;
}

/** Adds to each value the one of another picture `by` px further along a direction. */
function plusShifted(
  one: Float32Array,
  other: Float32Array,
  { width, height }: Size,
  along: { x: number; y: number },
  by: number,
): Float32Array {
  // What is nearly whole is whole: along the sides nothing lies between pixels.
  const [across, down] = [along.x * by, along.y * by].map((to) => Math.round(to * 1e6) / 1e6) as [
    number,
    number,
  ];
  const [left, top] = [Math.floor(across), Math.floor(down)];
  const [fx, fy] = [across - left, down - top];
  const weights = [(1 - fx) * (1 - fy), fx * (1 - fy), (1 - fx) * fy, fx * fy];
  const out = one.slice();
  weights.forEach((weight, index) => {
    if (weight > 0) addShifted(out, other, { width, height }, left + (index % 2), top + (index >> 1), weight);
  });
  return out;
}

function addShifted(
  out: Float32Array,
  other: Float32Array,
  { width, height }: Size,
  across: number,
  down: number,
  weight: number,
): void {
  const shift = modulo(across, width);
  const first = width - shift;
  for (let y = 0; y < height; y += 1) {
    const row = y * width;
    const from = modulo(y + down, height) * width;
    for (let x = 0; x < first; x += 1) out[row + x]! += weight * other[from + x + shift]!;
    for (let x = first; x < width; x += 1) out[row + x]! += weight * other[from + x - first]!;
  }
}

/** The root of the mean square of values. */
export function spreadOf(values: Float32Array): number {
  let sum = 0;
  for (let at = 0; at < values.length; at += 1) sum += values[at]! * values[at]!;
  return Math.sqrt(sum / values.length) || 1;
}

import { modulo } from '../num/tolerance';
import type { Raster } from './composite';

/**
 * What lies beyond the edges of a picture: its outermost pixels, the picture again, the picture turned over, or the picture
 * again with each row of them `along` px further to the right.
 */
export type Edges = 'clamp' | 'wrap' | 'mirror' | { along: number };

/** How much a pixel counts at a distance of so many pixels; nothing from `reach` on. */
export type Kernel = { reach: number; weight: (far: number) => number };

/** The Lanczos kernel of three lobes (Duchon 1979). */
export const LANCZOS: Kernel = { reach: 3, weight: lanczos };

/** The cubic kernel with B = C = 1/3 (Mitchell and Netravali 1988, Reconstruction Filters in Computer Graphics, eq. 8). */
export const MITCHELL: Kernel = { reach: 2, weight: mitchell };

/**
 * A picture at another size, by a kernel that is stretched where it shrinks, so that nothing finer than a pixel is left
 * in it. Premultiplied, eight bits a channel.
 */
export function resample(
  source: Raster,
  width: number,
  height: number,
  edges: Edges = 'clamp',
  kernel = LANCZOS,
): Raster {
  const [sides, along] = typeof edges === 'object' ? (['wrap', edges.along] as const) : [edges, 0];
  const across = tapsOf(source.width, width, sides, kernel);
  const down = tapsOf(source.height, height, along === 0 ? sides : null, kernel);
  const rows = new Rows(source, width, across, down.most, along);
  const out = new Uint8Array(width * height * 4);
  const sums = new Float32Array(width * 4);
  for (let y = 0; y < height; y += 1) {
    sums.fill(0);
    const end = down.starts[y + 1]!;
    for (let tap = down.starts[y]!; tap < end; tap += 1) {
      const row = rows.row(down.places[tap]!);
      const weight = down.weights[tap]!;
      for (let at = 0; at < sums.length; at += 1) sums[at]! += row[at]! * weight;
    }
    const to = y * width * 4;
    for (let at = 0; at < sums.length; at += 4) {
      const alpha = byte(sums[at + 3]!, 255);
      out[to + at] = byte(sums[at]!, alpha);
      out[to + at + 1] = byte(sums[at + 1]!, alpha);
      out[to + at + 2] = byte(sums[at + 2]!, alpha);
      out[to + at + 3] = alpha;
    }
  }
  return { width, height, data: out };
}

/** Rows at their new width, made where they are asked for; only so many are kept that one new row takes them from. */
class Rows {
  private readonly made = new Map<number, Float32Array>();

  constructor(
    private readonly source: Raster,
    private readonly width: number,
    private readonly taps: Taps,
    private readonly most: number,
    /** How far each further row of pictures lies along; row `y` may then lie beyond the picture. */
    private readonly along: number,
  ) {}

  row(y: number): Float32Array {
    const held = this.made.get(y);
    if (held) return held;
    const [oldest] = this.made.keys();
    const row =
      (this.made.size > this.most && oldest !== undefined && this.taken(oldest)) ||
      new Float32Array(this.width * 4);
    this.fill(row, y);
    this.made.set(y, row);
    return row;
  }

  /** The memory of a row that is not wanted any more. */
  private taken(y: number): Float32Array | undefined {
    const row = this.made.get(y);
    this.made.delete(y);
    return row;
  }

  private fill(row: Float32Array, y: number): void {
    const { data, width, height } = this.source;
    const { starts, places, weights } = this.taps;
    const further = Math.floor(y / height);
    const from = (y - further * height) * width * 4;
    const back = modulo(-further * this.along, width);
    for (let x = 0; x < this.width; x += 1) {
      let [red, green, blue, alpha] = [0, 0, 0, 0];
      const end = starts[x + 1]!;
      for (let tap = starts[x]!; tap < end; tap += 1) {
        const place = places[tap]! + back;
        const at = from + (place < width ? place : place - width) * 4;
        const weight = weights[tap]!;
        red += data[at]! * weight;
        green += data[at + 1]! * weight;
        blue += data[at + 2]! * weight;
        alpha += data[at + 3]! * weight;
      }
      row[x * 4] = red;
      row[x * 4 + 1] = green;
      row[x * 4 + 2] = blue;
      row[x * 4 + 3] = alpha;
    }
  }
}

const byte = (value: number, most: number): number =>
  value <= 0 ? 0 : value >= most ? most : Math.round(value);

/** The pixels that each new one is made of, one after the other: `starts` says where those of each begin, `most` how many one has. */
type Taps = { starts: Int32Array; places: Int32Array; weights: Float64Array; most: number };

const LOBES = 3;

/** The taps of each new pixel; without `edges` they may lie beyond the picture. */
function tapsOf(from: number, to: number, edges: 'clamp' | 'wrap' | 'mirror' | null, kernel: Kernel): Taps {
  const ratio = from / to;
  const stretch = Math.max(1, ratio);
  const starts = new Int32Array(to + 1);
  const places: number[] = [];
  const weights: number[] = [];
  for (let index = 0; index < to; index += 1) {
    starts[index] = places.length;
    const middle = (index + 0.5) * ratio - 0.5;
    const first = Math.ceil(middle - kernel.reach * stretch - 1e-9);
    const last = Math.floor(middle + kernel.reach * stretch + 1e-9);
    const begun = weights.length;
    let sum = 0;
    for (let at = first; at <= last; at += 1) {
      const weight = kernel.weight((at - middle) / stretch);
      if (Math.abs(weight) < 1e-9) continue;
      places.push(edges ? placeOf(at, from, edges) : at);
      weights.push(weight);
      sum += weight;
    }
    for (let at = begun; at < weights.length; at += 1) weights[at]! /= sum;
  }
  starts[to] = places.length;
  let most = 0;
  for (let index = 0; index < to; index += 1) most = Math.max(most, starts[index + 1]! - starts[index]!);
  return { starts, places: Int32Array.from(places), weights: Float64Array.from(weights), most };
}

function lanczos(x: number): number {
  if (Math.abs(x) < 1e-9) return 1;
  if (Math.abs(x) >= LOBES) return 0;
  const turn = Math.PI * x;
  return (LOBES * Math.sin(turn) * Math.sin(turn / LOBES)) / (turn * turn);
}

function mitchell(x: number): number {
  const far = Math.abs(x);
  if (far >= 2) return 0;
  if (far >= 1) return (((-7 * far + 36) * far - 60) * far) / 18 + 32 / 18;
  return ((21 * far - 36) * far * far + 16) / 18;
}

function placeOf(at: number, size: number, edges: 'clamp' | 'wrap' | 'mirror'): number {
  if (at >= 0 && at < size) return at;
  if (edges === 'clamp') return at < 0 ? 0 : size - 1;
  const period = edges === 'wrap' ? size : 2 * size;
  const rest = ((at % period) + period) % period;
  return rest < size ? rest : period - 1 - rest;
}

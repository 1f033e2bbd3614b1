import { clamp, modulo } from '../num/tolerance';
import type { Join } from '../recipe/pictured';
import type { Raster } from '../raster/composite';
import { transformOf } from './fourier';

/**
 * A picture whose lower edge is made to meet its upper one. `extended` is the picture with `margin` rows more above and
 * below, as they go on there; the next picture below lies `shift` px further right. Rows beyond the band stay to the bit.
 */
export type Extended = { picture: Raster; margin: number; shift: number; closed: boolean };

/** What of two pictures that lie over each other is seen in a band: `above` goes on from over it, `below` begins under it. */
type Band = {
  /** How long the joint is, and how far the band reaches to each side of it. */
  length: number;
  half: number;
  /** Where a pixel of the band lies in the extended picture, as a word: −half ≤ down < half. */
  above: (along: number, down: number) => number;
  below: (along: number, down: number) => number;
};

/**
 * Makes the lower edge of a picture meet its upper one, and answers it without its margins. The band reaches half its
 * width to each side of the joint; a picture must be at least as high as the band.
 */
export function joinDown({ picture, margin, shift, closed }: Extended, join: Join, band: number): Raster {
  const { width } = picture;
  const height = picture.height - 2 * margin;
  const half = Math.min(margin, Math.floor(height / 2), Math.max(1, Math.round(band / 2)));
  const data = picture.data.slice(margin * width * 4, (margin + height) * width * 4);
  const at = (column: number, row: number): number =>
    ((margin + row) * width + (closed ? modulo(column, width) : clamp(column, 0, width - 1))) * 4;
  const place: Band = {
    length: width,
    half,
    above: (along, down) => at(along, height + down),
    below: (along, down) => at(along - shift, down),
  };
  const write = (along: number, down: number, channel: number, value: number): void => {
    const row = down < 0 ? height + down : down;
    const column = down < 0 || !closed ? along : modulo(along - shift, width);
    data[(row * width + column) * 4 + channel] = Math.round(clamp(value, 0, 255));
  };
  const from = picture.data;
  if (join.how === 'fade') fade(from, place, write);
  else if (join.how === 'cut') cut(from, place, write, join.feather, closed);
  else level(from, place, write, closed);
  return { width, height, data };
}

type Write = (along: number, down: number, channel: number, value: number) => void;

/**
 * A blend that keeps the variance of both (Heitz and Neyret 2018, "High-performance by-example noise using a
 * histogram-preserving blending operator", eq. 2): the plain average of two textures has less contrast than either.
 */
function fade(from: Uint8Array, { length, half, above, below }: Band, write: Write): void {
  const mean = [0, 0, 0, 0];
  for (let along = 0; along < length; along += 1)
    for (let down = -half; down < half; down += 1)
      for (let channel = 0; channel < 4; channel += 1)
        mean[channel]! += from[above(along, down) + channel]! + from[below(along, down) + channel]!;
  for (let channel = 0; channel < 4; channel += 1) mean[channel]! /= 4 * length * half;
  for (let down = -half; down < half; down += 1) {
    const ours = (down + half + 0.5) / (2 * half);
    const theirs = 1 - ours;
    const size = Math.hypot(ours, theirs);
    for (let along = 0; along < length; along += 1) {
      const [a, b] = [above(along, down), below(along, down)];
      for (let channel = 0; channel < 4; channel += 1) {
        const middle = mean[channel]!;
        const sum = (from[a + channel]! - middle) * theirs + (from[b + channel]! - middle) * ours;
        write(along, down, channel, middle + sum / size);
      }
    }
  }
}

/** The line along which two pictures differ least (Efros and Freeman 2001, "Image quilting"), softened over `feather` px. */
function cut(
  from: Uint8Array,
  { length, half, above, below }: Band,
  write: Write,
  feather: number,
  closed: boolean,
): void {
  const high = 2 * half;
  const cost = new Float64Array(length * high);
  for (let along = 0; along < length; along += 1)
    for (let row = 0; row < high; row += 1) {
      const [a, b] = [above(along, row - half), below(along, row - half)];
      let sum = 0;
      for (let channel = 0; channel < 4; channel += 1) sum += (from[a + channel]! - from[b + channel]!) ** 2;
      cost[along * high + row] = sum;
    }
  const line = leastCut(cost, length, high, closed);
  for (let along = 0; along < length; along += 1)
    for (let row = 0; row < high; row += 1) {
      // The pixel of the line itself is the last one of what lies above.
      const past = row - line[along]!;
      const ours = feather === 0 ? (past > 0 ? 1 : 0) : clamp((past - 0.5) / feather + 0.5, 0, 1);
      // At the ends of the band it is wholly one or the other, wherever the line runs.
      const share = row === 0 ? 0 : row === high - 1 ? 1 : ours;
      const [a, b] = [above(along, row - half), below(along, row - half)];
      for (let channel = 0; channel < 4; channel += 1)
        write(along, row - half, channel, from[a + channel]! * (1 - share) + from[b + channel]! * share);
    }
}

/**
 * The path of least cost through `length` columns of `high` rows, a step of at most one row from column to column; a
 * closed one ends within a step of where it began. By dynamic programming, for a closed path over all its starts: best
 * paths of two starts need not cross, so that of a start in the middle halves the room of all others.
 */
export function leastCut(cost: Float64Array, length: number, high: number, closed: boolean): Int32Array {
  const search = new PathSearch(cost, length, high);
  const none = { low: new Int32Array(length), top: new Int32Array(length).fill(high - 1) };
  if (!closed) return search.cheapest(null, none)!.path;
  let best: FoundPath | null = null;
  const within = (first: number, last: number, room: Room): void => {
    if (first > last) return;
    const middle = (first + last) >> 1;
    const found = search.cheapest(middle, room);
    if (found && (!best || found.cost < best.cost)) best = found;
    within(first, middle - 1, found ? { low: room.low, top: found.path } : room);
    within(middle + 1, last, found ? { low: found.path, top: room.top } : room);
  };
  within(0, high - 1, none);
  return best!.path;
}

type FoundPath = { path: Int32Array; cost: number };
/** The rows that a path may take in each column, from `low` to `top`. */
type Room = { low: Int32Array; top: Int32Array };

class PathSearch {
  private readonly steps: Int8Array;

  constructor(
    private readonly cost: Float64Array,
    private readonly length: number,
    private readonly high: number,
  ) {
    this.steps = new Int8Array(length * high);
  }

  /** The cheapest path within its room, from a row on and back to within a step of it where one is given. */
  cheapest(start: number | null, { low, top }: Room): FoundPath | null {
    const { cost, length, high, steps } = this;
    let sums = new Float64Array(high).fill(Infinity);
    let next = new Float64Array(high).fill(Infinity);
    for (let row = low[0]!; row <= top[0]!; row += 1)
      if (start === null || row === start) sums[row] = cost[row]!;
    for (let along = 1; along < length; along += 1) {
      const from = along * high;
      const last = top[along]!;
      for (let row = low[along]!; row <= last; row += 1) {
        let least = sums[row]!;
        let step = 0;
        if (row > 0 && sums[row - 1]! < least) [least, step] = [sums[row - 1]!, -1];
        if (row < high - 1 && sums[row + 1]! < least) [least, step] = [sums[row + 1]!, 1];
        steps[from + row] = step;
        next[row] = least + cost[from + row]!;
      }
      sums.fill(Infinity, low[along - 1], top[along - 1]! + 1);
      [sums, next] = [next, sums];
    }
    let end = -1;
    for (let row = low[length - 1]!; row <= top[length - 1]!; row += 1) {
      if (start !== null && Math.abs(row - start) > 1) continue;
      if (end < 0 || sums[row]! < sums[end]!) end = row;
    }
    if (end < 0 || sums[end] === Infinity) return null;
    const path = new Int32Array(length);
    let row = end;
    for (let along = length - 1; along >= 0; along -= 1) {
      path[along] = row;
      row += steps[along * high + row]!;
    }
    return { path, cost: sums[end]! };
  }
}

/**
 * The difference at the joint taken away by a membrane: at each side half of it is laid over the band, fading as the
 * solution of Laplace's equation with nothing at the band's end (Pérez, Gangnet and Blake 2003, "Poisson image editing",
 * with the detail of each side kept). On a strip that is periodic along the joint each frequency fades by itself.
 */
function level(from: Uint8Array, { length, half, above, below }: Band, write: Write, closed: boolean): void {
  const jumps = [0, 1, 2, 3].map((channel) =>
    Float64Array.from(
      { length },
      (_, along) => (from[above(along, 0) + channel]! - from[below(along, 0) + channel]!) / 2,
    ),
  );
  for (const pair of [0, 2]) {
    const [first, second] = [jumps[pair]!, jumps[pair + 1]!];
    if (first.every((value) => value === 0) && second.every((value) => value === 0)) continue;
    const layers = membranes(first, second, half, closed);
    for (let down = 0; down < half; down += 1)
      for (const [offset, layer] of layers[down]!.entries()) {
        const channel = pair + offset;
        for (let along = 0; along < length; along += 1) {
          const by = layer[along]!;
          if (by === 0) continue;
          write(along, down, channel, from[below(along, down) + channel]! + by);
          write(along, -1 - down, channel, from[above(along, -1 - down) + channel]! - by);
        }
      }
  }
}

/**
 * The solution of the five-point Laplace equation on a strip of `depth` rows: the first row is `edge`, the one after the
 * last is 0. Along the strip it is periodic where it is closed, else mirrored at its ends.
 */
export const membrane = (edge: Float64Array, depth: number, closed: boolean): Float64Array[] =>
  membranes(edge, new Float64Array(edge.length), depth, closed).map(([layer]) => layer);

/** Two membranes at once: a transform of complex numbers has room for two rows of real ones. */
function membranes(
  one: Float64Array,
  other: Float64Array,
  depth: number,
  closed: boolean,
): [Float64Array, Float64Array][] {
  const own = one.length;
  const whole = (edge: Float64Array): Float64Array =>
    closed
      ? edge
      : Float64Array.from({ length: 2 * own }, (_, at) => edge[at < own ? at : 2 * own - 1 - at]!);
  const row = { re: whole(one), im: whole(other) };
  const size = row.re.length;
  const transform = transformOf(size);
  const turned = transform.forward(row);
  const rates = Float64Array.from({ length: size }, (_, k) =>
    Math.acosh(2 - Math.cos((2 * Math.PI * k) / size)),
  );
  return Array.from({ length: depth }, (_, down) => {
    const layer = { re: new Float64Array(size), im: new Float64Array(size) };
    for (let k = 0; k < size; k += 1) {
      const weight = fading(rates[k]!, down, depth);
      layer.re[k] = turned.re[k]! * weight;
      layer.im[k] = turned.im[k]! * weight;
    }
    const back = transform.backward(layer);
    return [back.re.subarray(0, own), back.im.subarray(0, own)];
  });
}

/** sinh(rate·(depth − down)) / sinh(rate·depth), also where both are too large to write. */
function fading(rate: number, down: number, depth: number): number {
  if (rate < 1e-9) return (depth - down) / depth;
  const rest = 1 - Math.exp(-2 * rate * (depth - down));
  return (Math.exp(-rate * down) * rest) / (1 - Math.exp(-2 * rate * depth));
}

/** A picture with its rows as columns. */
export function transposed({ width, height, data }: Raster): Raster {
  const out = new Uint8Array(data.length);
  const from = new Uint32Array(data.buffer, data.byteOffset, width * height);
  const to = new Uint32Array(out.buffer);
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1) to[x * height + y] = from[y * width + x]!;
  return { width: height, height: width, data: out };
}

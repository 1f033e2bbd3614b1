import { apply, chain, invert, translation, type Affine } from '../geom/affine';
import type { PicturePlane } from '../geom/plane';
import { cross, type Point } from '../geom/point';
import type { Raster } from './composite';
import { spreadOf } from './sample';
import { wordsOf } from './words';

/** A part of the plane as it is laid: the plane within one period → the pixels of its picture as they were decoded. */
type Laid = { toPicture: Affine; picture: number; width: number; height: number };

/** A picture up to this many pixels is copied with a rim of its neighbours round it; a larger one asks for them as it goes. */
const MOST_RIMMED = 4_000_000;
/** How many pixels of its neighbours a picture has round it: as far as a sample of a shrunken one reaches. */
const RIM = 3;
/** Places nearer than this to a whole pixel, in px, are that pixel. */
const EXACT = 1e-4;

/**
 * A plane of pictures seen through a matrix (output px → the plane's px). Every output pixel belongs to the one picture
 * that its middle lies in; at the edges of a picture its neighbours go on, so no line can show between them. Where
 * pixels lie on pixels they are copied. Else a bilinear sample is taken, spread into four where the picture is finer than
 * the output; it should be at most twice as fine. `pictures` may be smaller than the parts say: they were halved.
 */
export function samplePlane(
  plane: PicturePlane,
  pictures: readonly (Raster | null)[],
  toPlane: Affine,
  width: number,
  height: number,
): Raster {
  const data = new Uint8Array(width * height * 4);
  const sampler = new Sampler(plane, pictures);
  const out = wordsOf(data);
  for (let y = 0; y < height; y += 1) {
    let x = 0;
    while (x < width) x += sampler.run(out, y * width + x, width - x, toPlane, x + 0.5, y + 0.5);
  }
  return { width, height, data };
}

class Sampler {
  private readonly laid: Laid[];
  private readonly words: (Uint32Array | null)[];
  private readonly rimmed = new Map<Laid, Uint32Array>();

  constructor(
    private readonly plane: PicturePlane,
    private readonly pictures: readonly (Raster | null)[],
  ) {
    this.laid = laidOver(plane, pictures);
    this.words = pictures.map((picture) => picture && wordsOf(picture.data));
  }

  /** Draws the pixels of a row from (x, y) on that lie in one picture, at most `most`; how many they were. */
  run(out: Uint32Array, to: number, most: number, toPlane: Affine, x: number, y: number): number {
    const at = apply(toPlane, { x, y });
    const cell = this.cellOf(at);
    const laid = this.laid[this.find(at.x - cell.x, at.y - cell.y)];
    const words = laid && this.words[laid.picture];
    if (!laid || !words) return most;
    const matrix = chain(laid.toPicture, translation(-cell.x, -cell.y), toPlane);
    const { a, b, c, d } = matrix;
    const u = a * x + c * y + matrix.e;
    const v = b * x + d * y + matrix.f;
    const count = Math.min(most, stepsWithin(u, a, laid.width), stepsWithin(v, b, laid.height));
    const source = this.sourceOf(laid, words);
    if (isExact(matrix, u, v)) copy(out, to, count, source, u, v, a, b);
    else {
      const spread = spreadOf(Math.sqrt(Math.abs(a * d - b * c)));
      if (spread === 0) one(out, to, count, source, u, v, a, b);
      else four(out, to, count, source, u, v, matrix, spread);
    }
    return count;
  }

  /** The lattice point whose period a place of the plane lies in. */
  private cellOf(at: Point): Point {
    const { a, b } = this.plane;
    const det = cross(a, b);
    const i = Math.floor(cross(at, b) / det);
    const j = Math.floor(cross(a, at) / det);
    return { x: i * a.x + j * b.x, y: i * a.y + j * b.y };
  }

  /** The part that a place of the period lies in, or the nearest one where rounding leaves none. */
  private find(x: number, y: number): number {
    let best = -1;
    let room = -Infinity;
    for (let index = 0; index < this.laid.length; index += 1) {
      const { toPicture: m, width, height } = this.laid[index]!;
      const u = m.a * x + m.c * y + m.e;
      const v = m.b * x + m.d * y + m.f;
      const slack = Math.min(u / width, v / height, 1 - u / width, 1 - v / height);
      if (slack > room) {
        room = slack;
        best = index;
        if (slack > 1e-9) break;
      }
    }
    return best;
  }

  /** The pixel that lies at a place of the plane, nearest. */
  private pixelAt(at: Point): number {
    const cell = this.cellOf(at);
    const laid = this.laid[this.find(at.x - cell.x, at.y - cell.y)];
    const words = laid && this.words[laid.picture];
    if (!laid || !words) return 0;
    const { x, y } = apply(laid.toPicture, { x: at.x - cell.x, y: at.y - cell.y });
    const column = Math.min(laid.width - 1, Math.max(0, Math.floor(x)));
    const row = Math.min(laid.height - 1, Math.max(0, Math.floor(y)));
    return words[row * laid.width + column]!;
  }

  private sourceOf(laid: Laid, words: Uint32Array): Source {
    const { width, height } = laid;
    if (width * height > MOST_RIMMED) {
      const fromPicture = invert(laid.toPicture)!;
      const beyond = (x: number, y: number): number =>
        this.pixelAt(apply(fromPicture, { x: x + 0.5, y: y + 0.5 }));
      return { words, width, height, rim: 0, beyond };
    }
    const held = this.rimmed.get(laid) ?? this.rim(laid, words);
    this.rimmed.set(laid, held);
    return { words: held, width: width + 2 * RIM, height: height + 2 * RIM, rim: RIM, beyond: null };
  }

  private rim(laid: Laid, words: Uint32Array): Uint32Array {
    const { width, height } = laid;
    const wide = width + 2 * RIM;
    const high = height + 2 * RIM;
    const fromPicture = invert(laid.toPicture)!;
    const out = new Uint32Array(wide * high);
    for (let y = 0; y < high; y += 1) {
      const inner = y >= RIM && y < height + RIM;
      if (inner) out.set(words.subarray((y - RIM) * width, (y - RIM + 1) * width), y * wide + RIM);
      for (let x = 0; x < wide; x += 1) {
        if (inner && x === RIM) x += width;
        out[y * wide + x] = this.pixelAt(apply(fromPicture, { x: x - RIM + 0.5, y: y - RIM + 0.5 }));
      }
    }
    return out;
  }
}

/** Pixels to sample: `rim` of them lie beyond the picture on each side, or `beyond` tells what lies there. */
type Source = {
  words: Uint32Array;
  width: number;
  height: number;
  rim: number;
  beyond: ((x: number, y: number) => number) | null;
};

/** Every part at every offset at which it meets the period at the origin, as matrices to its pixels as decoded. */
function laidOver({ a, b, parts }: PicturePlane, pictures: readonly (Raster | null)[]): Laid[] {
  const det = cross(a, b);
  return parts.flatMap((part) => {
    const { width, height } = pictures[part.picture] ?? part;
    const corners = [
      { x: 0, y: 0 },
      { x: part.width, y: 0 },
      { x: 0, y: part.height },
      { x: part.width, y: part.height },
    ].map((corner) => apply(part.matrix, corner));
    const across = corners.map((corner) => cross(corner, b) / det);
    const down = corners.map((corner) => cross(a, corner) / det);
    const back = invert(part.matrix);
    if (!back) return [];
    const sized = { a: width / part.width, b: 0, c: 0, d: height / part.height, e: 0, f: 0 };
    const laid: Laid[] = [];
    const slack = 1e-6;
    for (let i = Math.floor(-Math.max(...across) - slack); i <= 1 - Math.min(...across) + slack; i += 1)
      for (let j = Math.floor(-Math.max(...down) - slack); j <= 1 - Math.min(...down) + slack; j += 1) {
        const home = translation(-(i * a.x + j * b.x), -(i * a.y + j * b.y));
        laid.push({ toPicture: chain(sized, back, home), picture: part.picture, width, height });
      }
    return laid;
  });
}

/** For how many steps of `by` a place stays within 0 … size; at least one. */
function stepsWithin(at: number, by: number, size: number): number {
  if (by === 0) return Infinity;
  const room = by > 0 ? size - at : -at;
  return Math.max(1, Math.ceil(room / by - 1e-9));
}

/** Whether output pixels lie on pixels of the picture: by whole steps, turned by quarters or turned over. */
function isExact({ a, b, c, d }: Affine, u: number, v: number): boolean {
  const whole = (value: number): boolean => Math.abs(value - Math.round(value)) < EXACT;
  const unit = (one: number, other: number): boolean =>
    Math.abs(Math.abs(one) - 1) < 1e-7 && Math.abs(other) < 1e-7;
  return whole(u - 0.5) && whole(v - 0.5) && ((unit(a, b) && unit(d, c)) || (unit(b, a) && unit(c, d)));
}

function copy(
  out: Uint32Array,
  to: number,
  count: number,
  { words, width, rim, height }: Source,
  u: number,
  v: number,
  du: number,
  dv: number,
): void {
  const across = Math.round(du);
  const down = Math.round(dv);
  let x = Math.min(width - 1, Math.max(0, Math.round(u - 0.5) + rim));
  let y = Math.min(height - 1, Math.max(0, Math.round(v - 0.5) + rim));
  if (across === 1) {
    out.set(words.subarray(y * width + x, y * width + Math.min(width, x + count)), to);
    return;
  }
  for (let index = 0; index < count; index += 1, x += across, y += down)
    out[to + index] = words[y * width + x]!;
}

function one(
  out: Uint32Array,
  to: number,
  count: number,
  source: Source,
  u: number,
  v: number,
  du: number,
  dv: number,
): void {
  for (let index = 0; index < count; index += 1)
    out[to + index] = bilinear(source, u + du * index, v + dv * index);
}

function four(
  out: Uint32Array,
  to: number,
  count: number,
  source: Source,
  u: number,
  v: number,
  { a, b, c, d }: Affine,
  spread: number,
): void {
  const [ax, bx, cx, dx] = [a * spread, b * spread, c * spread, d * spread];
  for (let index = 0; index < count; index += 1) {
    const x = u + a * index;
    const y = v + b * index;
    const p = bilinear(source, x - ax - cx, y - bx - dx);
    const q = bilinear(source, x + ax - cx, y + bx - dx);
    const r = bilinear(source, x - ax + cx, y - bx + dx);
    const s = bilinear(source, x + ax + cx, y + bx + dx);
    out[to + index] = p === q && p === r && p === s ? p : mean(p, q, r, s);
  }
}

/** Two of the four channels of a word at a time: its first and third byte, and its second and fourth. */
const PAIRS = 0x00ff00ff;

/** The mean of four words, channel by channel, rounded. */
function mean(p: number, q: number, r: number, s: number): number {
  const odd = (p & PAIRS) + (q & PAIRS) + (r & PAIRS) + (s & PAIRS) + 0x00020002;
  const even =
    ((p >>> 8) & PAIRS) + ((q >>> 8) & PAIRS) + ((r >>> 8) & PAIRS) + ((s >>> 8) & PAIRS) + 0x00020002;
  return (((odd >>> 2) & PAIRS) | (((even >>> 2) & PAIRS) << 8)) >>> 0;
}

/** A word between two: `share` is 0 to 256. */
function between(p: number, q: number, share: number): number {
  const rest = 256 - share;
  const odd = Math.imul(p & PAIRS, rest) + Math.imul(q & PAIRS, share) + 0x00800080;
  const even = Math.imul((p >>> 8) & PAIRS, rest) + Math.imul((q >>> 8) & PAIRS, share) + 0x00800080;
  return (((odd >>> 8) & PAIRS) | (even & ~PAIRS)) >>> 0;
}

/** A bilinear sample at (u, v) of the picture's own px. */
function bilinear({ words, width, height, rim, beyond }: Source, u: number, v: number): number {
  const x = u - 0.5 + rim;
  const y = v - 0.5 + rim;
  let left = Math.floor(x);
  let top = Math.floor(y);
  const fx = Math.round((x - left) * 256);
  const fy = Math.round((y - top) * 256);
  if (left < 0 || top < 0 || left >= width - 1 || top >= height - 1) {
    if (beyond) {
      const pixel = (column: number, row: number): number =>
        column >= 0 && row >= 0 && column < width && row < height
          ? words[row * width + column]!
          : beyond(column, row);
      const upper = between(pixel(left, top), pixel(left + 1, top), fx);
      return between(upper, between(pixel(left, top + 1), pixel(left + 1, top + 1), fx), fy);
    }
    left = Math.max(0, Math.min(width - 2, left));
    top = Math.max(0, Math.min(height - 2, top));
  }
  const at = top * width + left;
  const p = words[at]!;
  const q = words[at + 1]!;
  const r = words[at + width]!;
  const s = words[at + width + 1]!;
  if (p === q && p === r && p === s) return p;
  return between(between(p, q, fx), between(r, s, fx), fy);
}

import type { Point } from '../geom/point';
import type { Size } from '../lattice/size';
import { clamp } from '../num/tolerance';

/** A matte: how much of each pixel is kept, 0 to 255. */
export type Matte = Uint8Array;

/** The pixels that share a side with one. */
function eachBeside(pixel: number, width: number, height: number, visit: (pixel: number) => void): void {
  const x = pixel % width;
  if (x > 0) visit(pixel - 1);
  if (x < width - 1) visit(pixel + 1);
  if (pixel >= width) visit(pixel - width);
  if (pixel < width * (height - 1)) visit(pixel + width);
}

/** The pixels that can be reached from others over pixels beside each other that are open, those themselves included. */
function reached(
  { width, height }: Size,
  starts: Iterable<number>,
  isOpen: (pixel: number) => boolean,
): Matte {
  const found = new Uint8Array(width * height);
  // Each pixel is put down once at most.
  const open = new Int32Array(width * height);
  let count = 0;
  const visit = (pixel: number): void => {
    if (found[pixel] || !isOpen(pixel)) return;
    found[pixel] = 255;
    open[count] = pixel;
    count += 1;
  };
  for (const start of starts) visit(start);
  while (count > 0) {
    count -= 1;
    eachBeside(open[count]!, width, height, visit);
  }
  return found;
}

/** The pixels along a picture's edges. */
export function* edgePixels({ width, height }: Size): Generator<number> {
  for (let x = 0; x < width; x += 1) yield* [x, (height - 1) * width + x];
  for (let y = 1; y < height - 1; y += 1) yield* [y * width, y * width + width - 1];
}

/** Of the longer side of a picture: so far from its place a piece is still found, where the place itself was painted out. */
const NEAR = 0.1;

/** The pixel at a place that is kept, or the nearest one that is; `null` where none is near. */
function keptAt(matte: Matte, { width, height }: Size, { x, y }: Point): number | null {
  const [column, row] = [Math.floor(x), Math.floor(y)];
  const inside = column >= 0 && row >= 0 && column < width && row < height;
  if (inside && matte[row * width + column]! >= 128) return row * width + column;
  const reach = Math.ceil(Math.max(width, height) * NEAR);
  let [nearest, least]: [number | null, number] = [null, reach * reach];
  for (let at = Math.max(0, row - reach); at <= Math.min(height - 1, row + reach); at += 1)
    for (
      let across = Math.max(0, column - reach);
      across <= Math.min(width - 1, column + reach);
      across += 1
    ) {
      const square = (across - column) ** 2 + (at - row) ** 2;
      if (square < least && matte[at * width + across]! >= 128)
        [nearest, least] = [at * width + across, square];
    }
  return nearest;
}

/**
 * The pieces that lie under places, px, with their soft edges; all else is left out. Where a place was painted out since,
 * it is the piece that lies nearest.
 */
export function piecesAt(matte: Matte, size: Size, places: readonly Point[]): Matte {
  const starts = places.flatMap((place) => keptAt(matte, size, place) ?? []);
  const near = moved(
    reached(size, starts, (pixel) => matte[pixel]! >= 128),
    size,
    EDGE,
  );
  return matte.map((value, pixel) => (near[pixel] ? value : 0));
}

/** A piece of a matte: a pixel in its middle, how much of the picture it takes, 0 to 1, and which of some places it holds. */
export type Piece = Point & { share: number; holds: number[] };

/**
 * The largest pieces of a matte, the largest first: what hangs together of what is mostly kept. A place, px, is held by the
 * piece that {@link piecesAt} would keep for it.
 */
export function piecesOf(matte: Matte, size: Size, most: number, places: readonly Point[] = []): Piece[] {
  const picked = places.map((place) => keptAt(matte, size, place));
  const { width, height } = size;
  const seen = new Uint8Array(matte.length);
  const found: number[][] = [];
  for (let start = 0; start < matte.length; start += 1) {
    if (seen[start] || matte[start]! < 128) continue;
    const pixels = [start];
    seen[start] = 1;
    for (let at = 0; at < pixels.length; at += 1) {
      eachBeside(pixels[at]!, width, height, (next) => {
        if (seen[next] || matte[next]! < 128) return;
        seen[next] = 1;
        pixels.push(next);
      });
    }
    found.push(pixels);
  }
  found.sort((one, other) => other.length - one.length);
  return found.slice(0, most).map((pixels) => {
    const mean = (of: (pixel: number) => number): number =>
      pixels.reduce((sum, pixel) => sum + of(pixel), 0) / pixels.length;
    const [x, y] = [mean((pixel) => pixel % width), mean((pixel) => Math.floor(pixel / width))];
    const far = (pixel: number): number => Math.hypot((pixel % width) - x, Math.floor(pixel / width) - y);
    const middle = pixels.reduce((best, pixel) => (far(pixel) < far(best) ? pixel : best));
    const own = new Set(pixels);
    const holds = picked.flatMap((pixel, index) => (pixel !== null && own.has(pixel) ? index : []));
    const share = pixels.length / matte.length;
    return { x: middle % width, y: Math.floor(middle / width), share, holds };
  });
}

/** What is mostly left out and does not reach the picture's edge becomes whole. */
export function filled(matte: Matte, size: Size): Matte {
  const outside = reached(size, edgePixels(size), (pixel) => matte[pixel]! < 128);
  // What lies near the outside is the smooth edge; it stays.
  const near = moved(outside, size, EDGE);
  return matte.map((value, pixel) => (near[pixel] ? value : 255));
}

/** So many px from the outside of a subject its edge may still be soft. */
const EDGE = 3;

/** Moves an edge outward by so many px, or inward: the greatest, or the least, of what lies around, in octagons. */
export function moved(matte: Matte, { width, height }: Size, by: number): Matte {
  let held = matte;
  // Inward is outward of what is left out.
  const turn = by < 0 ? 255 : 0;
  if (turn) held = held.map((value) => value ^ turn);
  for (let step = 0; step < Math.abs(by); step += 1) {
    const from = held;
    const out = from.slice();
    // A square every second time, a cross between: together as round as pixels go.
    const square = step % 2 === 1;
    for (let y = 0; y < height; y += 1) {
      const start = y * width;
      const [above, below] = [y > 0 ? -width : 0, y < height - 1 ? width : 0];
      const whole = square && y > 0 && y < height - 1;
      for (let x = 0; x < width; x += 1) {
        const pixel = start + x;
        const left = x > 0 ? -1 : 0;
        const right = x < width - 1 ? 1 : 0;
        let most = from[pixel]!;
        if (most === 255) continue;
        most = greater(most, from[pixel + left]!);
        most = greater(most, from[pixel + right]!);
        most = greater(most, from[pixel + above]!);
        most = greater(most, from[pixel + below]!);
        if (whole && left !== 0 && right !== 0) {
          most = greater(most, from[pixel - width - 1]!);
          most = greater(most, from[pixel - width + 1]!);
          most = greater(most, from[pixel + width - 1]!);
          most = greater(most, from[pixel + width + 1]!);
        }
        out[pixel] = most;
      }
    }
    held = out;
  }
  return turn ? held.map((value) => value ^ turn) : held;
}

const greater = (one: number, other: number): number => (other > one ? other : one);

/** A mean over `reach` px to each side, across and down, twice: a soft edge twice as wide. */
export function softened(matte: Matte, { width, height }: Size, reach: number): Matte {
  if (reach < 1) return matte;
  let held = matte;
  for (let pass = 0; pass < 2; pass += 1) {
    held = meanAlong(held, { lines: height, length: width, line: width, step: 1 }, reach);
    held = meanAlong(held, { lines: width, length: height, line: 1, step: width }, reach);
  }
  return held;
}

type Lines = { lines: number; length: number; line: number; step: number };

function meanAlong(matte: Matte, { lines, length, line, step }: Lines, reach: number): Matte {
  const out = new Uint8Array(matte.length);
  const count = 2 * reach + 1;
  for (let index = 0; index < lines; index += 1) {
    const start = index * line;
    const end = start + (length - 1) * step;
    let sum = 0;
    for (let place = -reach; place <= reach; place += 1)
      sum += matte[start + clamp(place, 0, length - 1) * step]!;
    // What comes into the mean next and what leaves it; beyond an end it is the end itself.
    let next = start + (reach + 1) * step;
    let last = start - reach * step;
    for (let pixel = start; pixel <= end; pixel += step) {
      out[pixel] = (sum / count + 0.5) | 0;
      sum += matte[next < end ? next : end]! - matte[last > start ? last : start]!;
      next += step;
      last += step;
    }
  }
  return out;
}

/** From this on a pixel is the subject's own colour. */
const OWN = 250;

/**
 * Gives what is partly left out the colour of the nearest pixel that is whole, where one is near: an edge is a mixture of
 * subject and background, and the background would show on another one. Nearest by two sweeps (Danielsson 1980,
 * "Euclidean distance mapping", with four neighbours).
 */
export function cleanEdges(
  data: Uint8Array | Uint8ClampedArray,
  matte: Matte,
  { width, height }: Size,
): void {
  // Of each pixel how far across and down the nearest one lies that is whole, and how far that is, squared.
  const FAR_AWAY = 1 << 14;
  const across = new Int16Array(matte.length).fill(FAR_AWAY);
  const down = new Int16Array(matte.length).fill(FAR_AWAY);
  const far = new Int32Array(matte.length).fill(2 * FAR_AWAY * FAR_AWAY);
  for (let pixel = 0; pixel < matte.length; pixel += 1)
    if (matte[pixel]! >= OWN) across[pixel] = down[pixel] = far[pixel] = 0;
  const take = (pixel: number, from: number, dx: number, dy: number): void => {
    // A step away is further by one at least.
    if (far[pixel]! <= 1) return;
    const x = across[from]! + dx;
    const y = down[from]! + dy;
    const square = x * x + y * y;
    if (square >= far[pixel]!) return;
    across[pixel] = x;
    down[pixel] = y;
    far[pixel] = square;
  };
  for (let y = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1) {
      const pixel = y * width + x;
      if (x > 0) take(pixel, pixel - 1, -1, 0);
      if (y > 0) take(pixel, pixel - width, 0, -1);
    }
    for (let x = width - 2; x >= 0; x -= 1) take(y * width + x, y * width + x + 1, 1, 0);
  }
  for (let y = height - 1; y >= 0; y -= 1) {
    for (let x = 0; x < width; x += 1) {
      const pixel = y * width + x;
      if (x > 0) take(pixel, pixel - 1, -1, 0);
      if (y < height - 1) take(pixel, pixel + width, 0, 1);
    }
    for (let x = width - 2; x >= 0; x -= 1) take(y * width + x, y * width + x + 1, 1, 0);
  }
  const own = data.slice();
  for (let pixel = 0; pixel < matte.length; pixel += 1) {
    if (matte[pixel]! >= OWN || matte[pixel] === 0) continue;
    if (far[pixel]! > CLEAN_REACH ** 2) continue;
    const from = pixel + down[pixel]! * width + across[pixel]!;
    for (let channel = 0; channel < 3; channel += 1) data[pixel * 4 + channel] = own[from * 4 + channel]!;
  }
}

/** A pixel further than this from any that is whole keeps its own colour: it is no edge. */
const CLEAN_REACH = 12;

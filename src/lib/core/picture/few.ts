import { clusterColours } from '../colour/cluster';
import type { Hex } from '../colour/parse';
import { fromOklab, toOklab, type Oklab } from '../colour/space';
import { clamp, modulo } from '../num/tolerance';
import { FRESH_SCREEN, type Few, type PictureLay } from '../recipe/pictured';
import { halftone } from './halftone';
import type { Numbered } from '../raster/numbered';
import { labOf, samplePoints, type StraightPicture } from '../raster/recolour';

/**
 * The colours that tell a picture best, dark first: for flat ones the means of k-means in OKLab (see
 * {@link clusterColours}), fewer where it has fewer; for a blend the mean colours at even steps of its lightness, of
 * which a halftone has two.
 */
export function findColours(picture: StraightPicture, how: Few['how'], count: number): Hex[] {
  const points = samplePoints(picture);
  const found =
    how === 'flat'
      ? clusterColours(points, count).map(({ centre }) => centre)
      : stepsOfLight(points, how === 'halftone' ? 2 : count);
  const hexes = found.sort((one, other) => one.l - other.l).map(fromOklab);
  return [...new Set(hexes)];
}

/** Mean colours of the darkest, the lightest, and what lies at even shares between: of a fiftieth of the points each. */
function stepsOfLight(points: readonly Oklab[], count: number): Oklab[] {
  const sorted = [...points].sort((one, other) => one.l - other.l);
  const wide = Math.max(1, Math.round(sorted.length / 50));
  return Array.from({ length: count }, (_, index) => {
    const from = Math.round((index / (count - 1)) * (sorted.length - wide));
    const part = sorted.slice(from, from + wide);
    const mean = (of: (lab: Oklab) => number): number =>
      part.reduce((sum, lab) => sum + of(lab), 0) / part.length;
    return { l: mean(({ l }) => l), a: mean(({ a }) => a), b: mean(({ b }) => b) };
  }).filter(({ l }) => Number.isFinite(l));
}

/** A unit (straight alpha) told by its few colours; it lies as `lay` says, so that nothing changes at its edges. */
export function numbered(unit: StraightPicture, few: Few, lay: PictureLay): Numbered {
  if (few.how === 'halftone') return halftone(unit, few.colours, few.screen ?? FRESH_SCREEN, lay);
  return few.how === 'blend' ? blended(unit, few.colours) : flat(unit, few, lay);
}

/**
 * What was found for every eight-bit colour that was met, 0 for none; kept as long as the same colours are asked for, since
 * a region that is dragged asks for them again and again.
 */
let held: { key: string; known: Uint16Array } | null = null;

function knownFor(key: string): Uint16Array {
  if (held?.key !== key) held = { key, known: new Uint16Array(1 << 24) };
  return held.known;
}

const keyOf = (data: StraightPicture['data'], at: number): number =>
  (data[at]! << 16) | (data[at + 1]! << 8) | data[at + 2]!;

function blended({ width, height, data }: StraightPicture, colours: readonly Hex[]): Numbered {
  const lights = colours.map((colour) => toOklab(colour).l);
  // The number of the lighter of both colours, and how much of it.
  const known = knownFor(`blend ${colours.join()}`);
  const lab: Oklab = { l: 0, a: 0, b: 0 };
  const out = new Uint8Array(data.length);
  for (let at = 0; at < data.length; at += 4) {
    const key = keyOf(data, at);
    if (known[key] === 0) {
      labOf(data, at, lab);
      let low = 0;
      while (low < lights.length - 2 && lab.l >= lights[low + 1]!) low += 1;
      const gap = lights[low + 1]! - lights[low]!;
      const share = clamp(gap > 0 ? (lab.l - lights[low]!) / gap : 1, 0, 1);
      known[key] = ((low + 1) << 8) | Math.round(255 * share);
    }
    const found = known[key]!;
    out[at] = (found >> 8) - 1;
    out[at + 1] = found >> 8;
    out[at + 2] = found & 255;
    out[at + 3] = data[at + 3]!;
  }
  return { width, height, data: out };
}

function flat(unit: StraightPicture, { colours, speck }: Few, lay: PictureLay): Numbered {
  const numbers = flatNumbers(unit, colours, speck, lay);
  return smoothed(unit, numbers, new Plane(unit.width, unit.height, lay), colours.length);
}

/** The number of the nearest colour for each pixel, small spots dropped; `lay` is `null` for a picture that ends at its edges. */
export function flatNumbers(
  unit: StraightPicture,
  colours: readonly Hex[],
  speck: number,
  lay: PictureLay | null,
): Uint8Array {
  const numbers = nearestOf(unit, colours);
  if (speck > 0) dropSpecks(numbers, new Plane(unit.width, unit.height, lay), colours.length, speck);
  return numbers;
}

/** The number of the nearest colour in OKLab for each pixel. */
function nearestOf({ width, height, data }: StraightPicture, colours: readonly Hex[]): Uint8Array {
  const centres = colours.map(toOklab);
  const known = knownFor(`flat ${colours.join()}`);
  const lab: Oklab = { l: 0, a: 0, b: 0 };
  const numbers = new Uint8Array(width * height);
  for (let pixel = 0; pixel < numbers.length; pixel += 1) {
    const key = keyOf(data, pixel * 4);
    if (known[key] === 0) {
      labOf(data, pixel * 4, lab);
      let least = Infinity;
      centres.forEach(({ l, a, b }, index) => {
        const far = (lab.l - l) ** 2 + (lab.a - a) ** 2 + (lab.b - b) ** 2;
        if (far < least) [least, known[key]] = [far, index + 1];
      });
    }
    numbers[pixel] = known[key]! - 1;
  }
  return numbers;
}

/** The pixels of a unit as they lie in the whole plane, or of a picture that ends at its edges. */
class Plane {
  private readonly along: number;
  private readonly down: number;

  constructor(
    readonly width: number,
    readonly height: number,
    private readonly lay: PictureLay | null,
  ) {
    this.along = lay?.kind === 'brick' ? Math.round(lay.step * width) : 0;
    this.down = lay?.kind === 'half-drop' ? Math.round(lay.step * height) : 0;
  }

  /** The pixel at (x, y), which may lie in the next unit. */
  at(x: number, y: number): number {
    const { width, height } = this;
    if (x >= 0 && y >= 0 && x < width && y < height) return y * width + x;
    if (!this.lay) return clamp(y, 0, height - 1) * width + clamp(x, 0, width - 1);
    const [columns, rows] = [Math.floor(x / width), Math.floor(y / height)];
    return modulo(y - columns * this.down, height) * width + modulo(x - rows * this.along, width);
  }

  /** Whether all that touches a pixel away from the edges has its number. */
  even(numbers: Uint8Array, x: number, y: number): boolean {
    const { width, height } = this;
    if (x === 0 || y === 0 || x === width - 1 || y === height - 1) return false;
    const pixel = y * width + x;
    const own = numbers[pixel]!;
    for (let row = pixel - width; row <= pixel + width; row += width)
      if (numbers[row - 1] !== own || numbers[row] !== own || numbers[row + 1] !== own) return false;
    return true;
  }
}

const FOUR = [
  [1, 0],
  [-1, 0],
  [0, 1],
  [0, -1],
] as const;

/** Gives spots of less than `least` pixels the number that most of what touches them has. */
function dropSpecks(numbers: Uint8Array, plane: Plane, count: number, least: number): void {
  const seen = new Uint8Array(numbers.length);
  const spot = new Int32Array(numbers.length);
  const around = new Int32Array(count);
  for (let start = 0; start < numbers.length; start += 1) {
    if (seen[start]) continue;
    const own = numbers[start]!;
    around.fill(0);
    seen[start] = 1;
    spot[0] = start;
    let size = 1;
    for (let next = 0; next < size; next += 1) {
      const at = spot[next]!;
      const [x, y] = [at % plane.width, Math.floor(at / plane.width)];
      for (const [dx, dy] of FOUR) {
        const other = plane.at(x + dx, y + dy);
        if (numbers[other] !== own) around[numbers[other]!]! += 1;
        else if (!seen[other]) {
          seen[other] = 1;
          spot[size] = other;
          size += 1;
        }
      }
    }
    if (size >= least) continue;
    const most = around.indexOf(Math.max(...around));
    if (around[most] === 0) continue;
    for (let index = 0; index < size; index += 1) numbers[spot[index]!] = most;
  }
}

/** Weights of a pixel and those around it: the binomial filter of three. */
const AROUND = [-1, 0, 1].flatMap((dy) =>
  [-1, 0, 1].map((dx) => ({ dx, dy, weight: (2 - Math.abs(dx)) * (2 - Math.abs(dy)) })),
);

/** Numbers as they are kept, their edges smooth: where others lie beside a pixel, the one most seen is mixed in. */
function smoothed(
  { width, height, data }: StraightPicture,
  numbers: Uint8Array,
  plane: Plane,
  count: number,
): Numbered {
  const out = new Uint8Array(data.length);
  const seen = new Int32Array(count);
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1) {
      const pixel = y * width + x;
      const own = numbers[pixel]!;
      if (plane.even(numbers, x, y)) {
        out[pixel * 4] = out[pixel * 4 + 1] = own;
        out[pixel * 4 + 3] = data[pixel * 4 + 3]!;
        continue;
      }
      seen.fill(0);
      for (const { dx, dy, weight } of AROUND) seen[numbers[plane.at(x + dx, y + dy)]!]! += weight;
      let [first, second] = [own, own];
      for (let number = 0; number < count; number += 1) if (seen[number]! > seen[first]!) first = number;
      for (let number = 0; number < count; number += 1)
        if (number !== first && seen[number]! > (second === first ? 0 : seen[second]!)) second = number;
      out[pixel * 4] = first;
      out[pixel * 4 + 1] = second;
      const both = seen[first]! + (second === first ? 0 : seen[second]!);
      out[pixel * 4 + 2] = second === first ? 0 : Math.round((255 * seen[second]!) / both);
      out[pixel * 4 + 3] = data[pixel * 4 + 3]!;
    }
  return { width, height, data: out };
}

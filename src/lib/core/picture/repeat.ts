import { IDENTITY, apply, invert, type Affine } from '../geom/affine';
import { modulo } from '../num/tolerance';
import type { PictureLay } from '../recipe/pictured';
import { LINEAR } from '../colour/contrast';
import type { Size } from '../lattice/size';
import type { Raster } from '../raster/composite';
import { resample, type Edges } from '../raster/resample';
import { transform2 } from './fourier';
import { transposed } from './join';

/** How strongly the eye finds the unit of a repeat from a distance. */
export type RepeatFigure = { figure: number; word: 'none' | 'faint' | 'plain'; blob: Blob | null };

/**
 * What tells most where a unit begins again: an ellipse about what is lighter or darker than all else, in the unit of
 * length of its size, turned clockwise in degrees.
 */
export type Blob = { x: number; y: number; rx: number; ry: number; turn: number; is: 'light' | 'dark' };

/** The unit is looked at in so many px a side at most: what is finer does not tell one unit from the next. */
const SEEN_SIDE = 96;
/** Structures as large as a third of the unit and more tell where it begins again. */
const ORDERS = 3;
/** From these figures on, in units of lightness, it is faint, and plain: our own choice, by looking. */
const FAINT = 0.8;
const PLAIN = 2;

/** A part of a plane that repeats over its edges, in px: `size` in any unit of length, laid into the plane by `matrix`. */
export type SeenCell = { picture: Raster; size: Size; matrix: Affine };

/**
 * How much of a unit's light changes with the unit itself, as it is seen from `distance` (in the same unit of length as
 * the cell): the energy of the first orders of its own lattice, each weighted by the contrast sensitivity of the eye
 * at its frequency (Mannos and Sakrison 1974, "The effects of a visual fidelity criterion on the encoding of images").
 */
export function repeatFigure({ picture, size, matrix }: SeenCell, distance: number): RepeatFigure {
  const seen = smallEnough(picture, 'wrap');
  const { width, height } = seen;
  const light = Float64Array.from({ length: width * height }, (_, at) => lightness(seen.data, at * 4));
  const { re, im } = transform2(light, new Float64Array(light.length), width, height, 'forward');
  let energy = 0;
  // What the eye keeps of the unit: its first orders, each as much as it is seen.
  const kept = { re: new Float64Array(light.length), im: new Float64Array(light.length) };
  for (let k = -ORDERS; k <= ORDERS; k += 1)
    for (let l = -ORDERS; l <= ORDERS; l += 1) {
      if ((k === 0 && l === 0) || 2 * Math.abs(k) > width || 2 * Math.abs(l) > height) continue;
      const at = ((l + height) % height) * width + ((k + width) % width);
      const amplitude = Math.hypot(re[at]!, im[at]!) / light.length;
      const cycles = frequency(matrix, k / size.width, l / size.height);
      const weight = sensitivity((cycles * distance * Math.PI) / 180);
      energy += (amplitude * weight) ** 2;
      kept.re[at] = re[at]! * weight;
      kept.im[at] = im[at]! * weight;
    }
  const figure = Math.sqrt(energy);
  const word = figure >= PLAIN ? 'plain' : figure >= FAINT ? 'faint' : 'none';
  if (word === 'none') return { figure, word, blob: null };
  const { re: values } = transform2(kept.re, kept.im, width, height, 'backward');
  return { figure, word, blob: blobOf(values, { width, height }, size, matrix) };
}

/** How many waves go into a unit of length, of a wave that has (k, l) of them along the cell's own directions. */
function frequency(matrix: Affine, k: number, l: number): number {
  const { a, b, c, d } = matrix;
  const det = a * d - b * c;
  return Math.hypot((d * k - b * l) / det, (a * l - c * k) / det);
}

/**
 * A unit as a cell that repeats over its edges: where its rows or columns lie further along each, it is skewed back by as
 * much, and the matrix lays it skewed.
 */
export function cellOfUnit(unit: Raster, size: Size, lay: PictureLay): SeenCell {
  if (lay.kind === 'straight' || lay.step === 0) return { picture: unit, size, matrix: IDENTITY };
  const { step } = lay;
  if (lay.kind === 'brick') {
    const seen = smallEnough(unit, { along: Math.round(step * unit.width) });
    return {
      picture: skewed(seen, step),
      size,
      matrix: { ...IDENTITY, c: (step * size.width) / size.height },
    };
  }
  const seen = transposed(smallEnough(transposed(unit), { along: Math.round(step * unit.height) }));
  const picture = transposed(skewed(transposed(seen), step));
  return { picture, size, matrix: { ...IDENTITY, b: (step * size.height) / size.width } };
}

function smallEnough(picture: Raster, edges: Edges): Raster {
  const fit = SEEN_SIDE / Math.max(picture.width, picture.height);
  if (fit >= 1) return picture;
  const side = (length: number): number => Math.max(2, Math.round(length * fit));
  return resample(picture, side(picture.width), side(picture.height), edges);
}

/** Each row moved back along itself by its share of `step` units, over its ends. */
function skewed({ width, height, data }: Raster, step: number): Raster {
  const out = new Uint8Array(data.length);
  for (let y = 0; y < height; y += 1) {
    const by = modulo((step * width * (y + 0.5)) / height, width);
    const [whole, share] = [Math.floor(by), by - Math.floor(by)];
    for (let x = 0; x < width; x += 1) {
      const from = (y * width + ((x + whole) % width)) * 4;
      const next = (y * width + ((x + whole + 1) % width)) * 4;
      const to = (y * width + x) * 4;
      for (let channel = 0; channel < 4; channel += 1)
        out[to + channel] = Math.round(data[from + channel]! * (1 - share) + data[next + channel]! * share);
    }
  }
  return { width, height, data: out };
}

/** From this share of the most on it belongs to a blob. */
const WITHIN = 0.5;

/** The ellipse (two standard deviations, in the plane) about the greatest of values over a cell and what hangs together with it. */
function blobOf(values: Float64Array, { width, height }: Size, size: Size, matrix: Affine): Blob {
  let peak = 0;
  values.forEach((value, at) => {
    if (Math.abs(value) > Math.abs(values[peak]!)) peak = at;
  });
  const least = Math.abs(values[peak]!) * WITHIN;
  const sign = Math.sign(values[peak]!);
  const seen = new Uint8Array(values.length);
  // Places go on beyond the edges, so that a blob over an edge is one.
  const open = [{ x: peak % width, y: Math.floor(peak / width) }];
  seen[peak] = 1;
  for (let at = 0; at < open.length; at += 1) {
    const { x, y } = open[at]!;
    for (const [dx, dy] of [
      [1, 0],
      [-1, 0],
      [0, 1],
      [0, -1],
    ] as const) {
      const next = { x: x + dx, y: y + dy };
      const pixel = ((next.y + height * 4) % height) * width + ((next.x + width * 4) % width);
      if (seen[pixel] || values[pixel]! * sign < least) continue;
      seen[pixel] = 1;
      open.push(next);
    }
  }
  const [stepX, stepY] = [size.width / width, size.height / height];
  const places = open.map(({ x, y }) => apply(matrix, { x: (x + 0.5) * stepX, y: (y + 0.5) * stepY }));
  const mean = (of: (place: { x: number; y: number }) => number): number =>
    places.reduce((sum, place) => sum + of(place), 0) / places.length;
  const [x, y] = [mean((place) => place.x), mean((place) => place.y)];
  const xx = mean((place) => (place.x - x) ** 2) + stepX ** 2 / 12;
  const yy = mean((place) => (place.y - y) ** 2) + stepY ** 2 / 12;
  const xy = mean((place) => (place.x - x) * (place.y - y));
  const spread = Math.hypot((xx - yy) / 2, xy);
  const radius = (square: number): number => 2 * Math.sqrt(Math.max(0, square));
  // The same place of the cell at the origin.
  const middle = apply(invert(matrix) ?? IDENTITY, { x, y });
  const own = { x: modulo(middle.x, size.width), y: modulo(middle.y, size.height) };
  return {
    ...apply(matrix, own),
    rx: radius((xx + yy) / 2 + spread),
    ry: radius((xx + yy) / 2 - spread),
    turn: (Math.atan2(2 * xy, xx - yy) * 90) / Math.PI,
    is: sign > 0 ? 'light' : 'dark',
  };
}

/** The eye's sensitivity to a wave of so many cycles a degree, 1 at its most. */
export const sensitivity = (cycles: number): number =>
  2.6 * (0.0192 + 0.114 * cycles) * Math.exp(-((0.114 * cycles) ** 1.1));

/** CIE L* (1976), 0 to 100, of a pixel over mid grey where it is clear. */
function lightness(data: Uint8Array, at: number): number {
  const rest = (255 - data[at + 3]!) >> 1;
  const y =
    0.2126 * LINEAR[data[at]! + rest]! +
    0.7152 * LINEAR[data[at + 1]! + rest]! +
    0.0722 * LINEAR[data[at + 2]! + rest]!;
  return y > 216 / 24389 ? 116 * Math.cbrt(y) - 16 : (24389 / 27) * y;
}

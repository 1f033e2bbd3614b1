import { LINEAR } from '../colour/contrast';
import type { PictureLay } from '../recipe/pictured';
import type { Raster } from '../raster/composite';

/** How plainly a join is seen. */
export type SeamWord = 'none' | 'faint' | 'plain' | 'flat';

/** One place along a join: how far along, 0 to 1, and its own figure. */
export type SeamPlace = { at: number; figure: number };

/**
 * What the step across a join is, measured against the steps within the picture: 1 or less is as much as anywhere. `flat` stands
 * for a picture without any step, in which no seam can be found.
 */
export type SeamFigure = { figure: number; word: SeamWord; line: SeamPlace[] };

/** The joins of a unit: between left and right edge, and between the lower and the upper one. */
export type Seams = { across: SeamFigure; down: SeamFigure; figure: number; word: SeamWord };

/** Steps are compared at these sizes, px: a fine edge is seen at the first, a slow change of light at the last. */
const SIZES = [1, 2, 4, 8, 16];
/** From these figures on a join is faint, and plain: our own choice, by looking at joins. */
const FAINT = 1.25;
const PLAIN = 1.8;
/** A step below this, in L, a and b of OKLab times 100, is not seen: a quarter of a just noticeable difference. */
const UNSEEN = 0.5;
/** Places of the line along a join. */
const PLACES = 48;

/**
 * Measures the joins of a unit as it is laid. Where its edges were made to meet within a band of `band` px, the lines of
 * the band are looked at too: what is not seen at the edge may be seen beside it.
 */
export function seamsOf(unit: Raster, lay: PictureLay, band = 0): Seams {
  const lab = labOf(unit);
  const sideways = transposedLab(lab);
  const across = measure(sideways, lay.kind === 'half-drop' ? Math.round(lay.step * unit.height) : 0, band);
  const down = measure(lab, lay.kind === 'brick' ? Math.round(lay.step * unit.width) : 0, band);
  const worse = across.figure >= down.figure ? across : down;
  const word =
    across.word === 'flat' && down.word === 'flat' ? 'flat' : worse.word === 'flat' ? 'none' : worse.word;
  return { across, down, figure: worse.figure, word };
}

type Lab = { width: number; height: number; channels: Float32Array[] };

/** The join between the last row and the first, which lies `shift` px further right in the next unit. */
function measure(lab: Lab, shift: number, band: number): SeamFigure {
  const sums = lab.channels.map((channel) => summed(channel, lab.width, lab.height));
  let figure = 0;
  let line: SeamPlace[] = [];
  let flat = true;
  for (const size of SIZES) {
    if (size * 8 > Math.min(lab.width, lab.height)) break;
    const usual = inner(lab, sums, size);
    const floor = Math.max(usual, UNSEEN);
    for (const offset of offsetsOf(lab, size, band)) {
      const steps = joint(lab, sums, size, shift, offset);
      const here = rootMean(steps);
      if (usual > UNSEEN / 4 || here > UNSEEN) flat = false;
      const ratio = here / floor;
      if (ratio <= figure && line.length > 0) continue;
      figure = Math.max(figure, ratio);
      line = alongOf(steps, floor);
    }
  }
  const word = flat ? 'flat' : figure >= PLAIN ? 'plain' : figure >= FAINT ? 'faint' : 'none';
  return { figure, word, line };
}

/** Steps of this size and more are looked for within a band too: what a cut leaves of a difference in light. */
const BAND_SIZE = 4;

/** The lines that are looked at for one size: the edge, and those of the band that squares of the size lie beside. */
function offsetsOf({ height }: Lab, size: number, band: number): number[] {
  const reach = size < BAND_SIZE ? 0 : Math.min(Math.floor(band / 2), Math.floor(height / 2) - size);
  const offsets = [0];
  for (let offset = size; offset <= reach; offset += size) offsets.push(offset, -offset);
  return offsets;
}

const rootMean = (steps: Float64Array): number =>
  Math.sqrt(steps.reduce((sum, step) => sum + step, 0) / Math.max(1, steps.length));

function alongOf(steps: Float64Array, floor: number): SeamPlace[] {
  const count = Math.min(PLACES, steps.length);
  return Array.from({ length: count }, (_, index) => {
    const from = Math.floor((index * steps.length) / count);
    const to = Math.max(from + 1, Math.floor(((index + 1) * steps.length) / count));
    return { at: (index + 0.5) / count, figure: rootMean(steps.subarray(from, to)) / floor };
  });
}

/** Squared steps across a line `offset` px below the join, between squares of `size` px at each side of it. */
function joint(
  { width, height }: Lab,
  sums: Float64Array[],
  size: number,
  shift: number,
  offset: number,
): Float64Array {
  const count = Math.floor(width / size);
  const steps = new Float64Array(count);
  // What lies above the join is the end of this unit, what lies below it the beginning of the next.
  const [over, under] = [offset - size, offset].map((row) =>
    row < 0 ? { row: height + row, shift: 0 } : { row, shift },
  ) as [{ row: number; shift: number }, { row: number; shift: number }];
  for (let index = 0; index < count; index += 1) {
    const x = index * size;
    for (const sum of sums) {
      const above = wrapped(sum, width, x - over.shift, over.row, size);
      const below = wrapped(sum, width, x - under.shift, under.row, size);
      steps[index]! += (below - above) ** 2;
    }
  }
  return steps;
}

/**
 * The usual step between squares of `size` px that lie over each other within the picture: what nine tenths of its lines
 * stay under, each as the root of its mean square. So a picture with lines of its own needs a plainer join to show one.
 */
function inner({ width, height }: Lab, sums: Float64Array[], size: number): number {
  const count = Math.floor(width / size);
  const rows = Math.floor(height / size) - 1;
  const every = Math.max(1, Math.floor(rows / MOST_LINES));
  const lines: number[] = [];
  for (let row = 0; row < rows; row += every) {
    let sum = 0;
    for (let index = 0; index < count; index += 1)
      for (const channel of sums) {
        const x = index * size;
        const below = square(channel, width, x, (row + 1) * size, size);
        sum += (below - square(channel, width, x, row * size, size)) ** 2;
      }
    lines.push(Math.sqrt(sum / Math.max(1, count)));
  }
  lines.sort((one, other) => one - other);
  return lines[Math.min(lines.length - 1, Math.floor(lines.length * 0.9))] ?? 0;
}

/** So many lines tell what is usual. */
const MOST_LINES = 128;

/** Sums over everything left of and above each pixel, one row and column more than the picture. */
function summed(channel: Float32Array, width: number, height: number): Float64Array {
  const wide = width + 1;
  const sums = new Float64Array(wide * (height + 1));
  for (let y = 0; y < height; y += 1) {
    let row = 0;
    for (let x = 0; x < width; x += 1) {
      row += channel[y * width + x]!;
      sums[(y + 1) * wide + x + 1] = sums[y * wide + x + 1]! + row;
    }
  }
  return sums;
}

function square(sums: Float64Array, width: number, x: number, y: number, size: number, wide = size): number {
  const row = width + 1;
  const [top, bottom] = [y * row, (y + size) * row];
  return (
    (sums[bottom + x + wide]! - sums[bottom + x]! - sums[top + x + wide]! + sums[top + x]!) / (size * wide)
  );
}

/** A square that may lie over the right edge and go on at the left one. */
function wrapped(sums: Float64Array, width: number, x: number, y: number, size: number): number {
  const from = ((x % width) + width) % width;
  if (from + size <= width) return square(sums, width, from, y, size);
  const first = width - from;
  return (
    (square(sums, width, from, y, size, first) * first +
      square(sums, width, 0, y, size, size - first) * (size - first)) /
    size
  );
}

/** OKLab (Ottosson 2020) times 100, premultiplied colour over mid grey, so that what is clear has one colour. */
function labOf({ width, height, data }: Raster): Lab {
  const channels = [0, 1, 2].map(() => new Float32Array(width * height));
  for (let at = 0; at < width * height; at += 1) {
    const rest = 0.5 * (255 - data[at * 4 + 3]!);
    const part = (channel: number): number =>
      LINEAR[Math.min(255, Math.round(data[at * 4 + channel]! + rest))]!;
    const [r, g, b] = [part(0), part(1), part(2)];
    const l = Math.cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b);
    const m = Math.cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b);
    const s = Math.cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b);
    channels[0]![at] = 100 * (0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s);
    channels[1]![at] = 100 * (1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s);
    channels[2]![at] = 100 * (0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s);
  }
  return { width, height, channels };
}

function transposedLab({ width, height, channels }: Lab): Lab {
  return {
    width: height,
    height: width,
    channels: channels.map((channel) => {
      const out = new Float32Array(channel.length);
      for (let y = 0; y < height; y += 1)
        for (let x = 0; x < width; x += 1) out[x * height + y] = channel[y * width + x]!;
      return out;
    }),
  };
}

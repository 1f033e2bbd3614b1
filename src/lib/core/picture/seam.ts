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
/** A size is left out where fewer squares than this lie along a side: so few say nothing. */
const FEWEST = 12;
/** Places of the line along a join. */
const PLACES = 48;

/**
 * Measures the joins of a unit as it is laid. Where its edges were made to meet within a band of `band` px, the lines of
 * the band are looked at too: what is not seen at the edge may be seen beside it.
 */
export function seamsOf(unit: Raster, lay: PictureLay, band = 0): Seams {
  const sums = sumsOf(unit);
  const across = measure(new Joint(sums, 'across'), lay.kind === 'half-drop' ? lay.step : 0, band);
  const down = measure(new Joint(sums, 'down'), lay.kind === 'brick' ? lay.step : 0, band);
  const worse = across.figure >= down.figure ? across : down;
  const word =
    across.word === 'flat' && down.word === 'flat' ? 'flat' : worse.word === 'flat' ? 'none' : worse.word;
  return { across, down, figure: worse.figure, word };
}

/** Sums over everything left of and above each pixel in L, a and b of OKLab times 100; one row and column more than the picture. */
type Sums = { width: number; height: number; channels: Float64Array[] };

/** A picture seen along one of its joins: `length` px along it, `depth` px from one join to the next. */
class Joint {
  readonly length: number;
  readonly depth: number;
  /** How far apart neighbours along the join, and across it, lie in the sums. */
  private readonly along: number;
  private readonly over: number;

  constructor(
    private readonly sums: Sums,
    which: 'across' | 'down',
  ) {
    const { width, height } = sums;
    const row = width + 1;
    [this.length, this.depth] = which === 'down' ? [width, height] : [height, width];
    [this.along, this.over] = which === 'down' ? [1, row] : [row, 1];
  }

  /** The squared step between a square of `size` px and the one at another place, which may lie over the end. */
  step(from: number, above: number, to: number, below: number, size: number): number {
    let sum = 0;
    for (const channel of this.sums.channels)
      sum += (this.mean(channel, to, below, size) - this.mean(channel, from, above, size)) ** 2;
    return sum;
  }

  /** The sum of the squared steps between `count` squares of `size` px, side by side from the beginning, and those below them. */
  steps(above: number, size: number, count: number): number {
    const [along, area] = [this.along * size, size * size];
    const top = above * this.over;
    const middle = top + size * this.over;
    const bottom = middle + size * this.over;
    let sum = 0;
    for (const channel of this.sums.channels) {
      let upper = channel[middle]! - channel[top]!;
      let lower = channel[bottom]! - channel[middle]!;
      for (let at = along; at <= count * along; at += along) {
        const nextUpper = channel[middle + at]! - channel[top + at]!;
        const nextLower = channel[bottom + at]! - channel[middle + at]!;
        const step = (nextLower - lower - (nextUpper - upper)) / area;
        sum += step * step;
        upper = nextUpper;
        lower = nextLower;
      }
    }
    return sum;
  }

  private mean(channel: Float64Array, at: number, deep: number, size: number): number {
    const from = ((at % this.length) + this.length) % this.length;
    const first = Math.min(size, this.length - from);
    const whole = this.part(channel, from, deep, first, size);
    if (first === size) return whole / (size * size);
    return (whole + this.part(channel, 0, deep, size - first, size)) / (size * size);
  }

  private part(channel: Float64Array, at: number, deep: number, wide: number, size: number): number {
    const start = at * this.along + deep * this.over;
    const [end, under] = [wide * this.along, size * this.over];
    return channel[start + end + under]! - channel[start + under]! - channel[start + end]! + channel[start]!;
  }
}

/** The join between the last line and the first, which lies `step` of the length further along in the next unit. */
function measure(joint: Joint, step: number, band: number): SeamFigure {
  const shift = Math.round(step * joint.length);
  let figure = 0;
  let line: SeamPlace[] = [];
  let flat = true;
  for (const size of SIZES) {
    if (size * FEWEST > Math.min(joint.length, joint.depth)) break;
    const usual = inner(joint, size);
    const floor = Math.max(usual, UNSEEN);
    for (const offset of offsetsOf(joint, size, band)) {
      const steps = stepsAt(joint, size, shift, offset);
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
function offsetsOf({ depth }: Joint, size: number, band: number): number[] {
  const reach = size < BAND_SIZE ? 0 : Math.min(Math.floor(band / 2), Math.floor(depth / 2) - size);
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

/** Squared steps across a line `offset` px beyond the join, between squares of `size` px at each side of it. */
function stepsAt(joint: Joint, size: number, shift: number, offset: number): Float64Array {
  const { length, depth } = joint;
  // What lies before the join is the end of this unit, what lies beyond it the beginning of the next.
  const placed = (line: number): { deep: number; shift: number } =>
    line < 0 ? { deep: depth + line, shift: 0 } : { deep: line, shift };
  const [before, beyond] = [placed(offset - size), placed(offset)];
  return Float64Array.from({ length: Math.floor(length / size) }, (_, index) => {
    const at = index * size;
    return joint.step(at - before.shift, before.deep, at - beyond.shift, beyond.deep, size);
  });
}

/**
 * The usual step between squares of `size` px that lie beside each other within the picture: what nine tenths of its
 * lines stay under, each as the root of its mean square. So a picture with lines of its own needs a plainer join to show
 * one.
 */
function inner(joint: Joint, size: number): number {
  const count = Math.floor(joint.length / size);
  const lines = Math.floor(joint.depth / size) - 1;
  const every = Math.max(1, Math.floor(lines / MOST_LINES));
  const found: number[] = [];
  for (let line = 0; line < lines; line += every) {
    found.push(Math.sqrt(joint.steps(line * size, size, count) / Math.max(1, count)));
  }
  found.sort((one, other) => one - other);
  return found[Math.min(found.length - 1, Math.floor(found.length * 0.9))] ?? 0;
}

/** So many lines tell what is usual. */
const MOST_LINES = 128;

/** Cube roots of 0 … 1: finer than the steps of eight bits are in linear light. */
const ROOTS = Float32Array.from({ length: 65_536 }, (_, at) => Math.cbrt(at / 65_535));

/** What each channel of eight bits adds to the three responses of OKLab (Ottosson 2020), as places in {@link ROOTS}. */
const RESPONSES = [
  [0.4122214708, 0.5363325363, 0.0514459929],
  [0.2119034982, 0.6806995451, 0.1073969566],
  [0.0883024619, 0.2817188376, 0.6299787005],
].map((weights) => weights.map((weight) => Float64Array.from(LINEAR, (value) => value * weight * 65_535)));

/** What is clear counts as the mid grey that it is laid over here, so that it has one colour. */
function sumsOf({ width, height, data }: Raster): Sums {
  const row = width + 1;
  const channels = [0, 1, 2].map(() => new Float64Array(row * (height + 1)));
  const [lights, greens, blues] = channels as [Float64Array, Float64Array, Float64Array];
  const [[lr, lg, lb], [mr, mg, mb], [sr, sg, sb]] = RESPONSES as [Three, Three, Three];
  for (let y = 0; y < height; y += 1) {
    let l = 0;
    let a = 0;
    let b = 0;
    for (let x = 0; x < width; x += 1) {
      const at = (y * width + x) * 4;
      const rest = (255 - data[at + 3]!) >> 1;
      const red = data[at]! + rest;
      const green = data[at + 1]! + rest;
      const blue = data[at + 2]! + rest;
      const long = ROOTS[(lr[red]! + lg[green]! + lb[blue]! + 0.5) | 0]!;
      const middle = ROOTS[(mr[red]! + mg[green]! + mb[blue]! + 0.5) | 0]!;
      const short = ROOTS[(sr[red]! + sg[green]! + sb[blue]! + 0.5) | 0]!;
      l += 100 * (0.2104542553 * long + 0.793617785 * middle - 0.0040720468 * short);
      a += 100 * (1.9779984951 * long - 2.428592205 * middle + 0.4505937099 * short);
      b += 100 * (0.0259040371 * long + 0.7827717662 * middle - 0.808675766 * short);
      const to = (y + 1) * row + x + 1;
      lights[to] = lights[to - row]! + l;
      greens[to] = greens[to - row]! + a;
      blues[to] = blues[to - row]! + b;
    }
  }
  return { width, height, channels };
}

type Three = [Float64Array, Float64Array, Float64Array];

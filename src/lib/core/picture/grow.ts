import { clamp } from '../num/tolerance';
import { seededRandom } from '../num/random';
import type { Raster } from '../raster/composite';
import { resample } from '../raster/resample';
import { leastCut } from './join';

/** Candidates that are held against what lies there already, for each patch. */
const CANDIDATES = 80;
/** The shorter side of a unit holds so many patches of it. */
const PATCHES = 3;
/** So much of a patch lies over its neighbours. */
const OVERLAP = 0.25;
/** A pixel in every so many of the overlap is compared when a patch is chosen. */
const THIN = 3;

/** Patches are chosen on a texture whose shorter side has so many px: the same ones, whatever size is made in the end. */
const CHOSEN_SIDE = 120;

/**
 * A larger unit of a texture, `times` as wide and high, quilted on the torus from patches of the texture itself: each
 * patch is the one of many that differs least from what it overlaps, and is cut out along the line where it differs
 * least (Efros and Freeman 2001, "Image quilting for texture synthesis and transfer"). The same seed gives the same bytes.
 */
export function grow(source: Raster, times: number, seed: number): Raster {
  const fit = Math.min(1, CHOSEN_SIDE / Math.min(source.width, source.height));
  const small =
    fit < 1 ? resample(source, Math.round(source.width * fit), Math.round(source.height * fit)) : source;
  const chosen = quilted(small, times, seed, null);
  return fit < 1 ? quilted(source, times, seed, chosen.plan).out : chosen.out;
}

/** Where in the texture each patch comes from, as shares of its sides. */
type Plan = { x: number; y: number }[];

function quilted(
  source: Raster,
  times: number,
  seed: number,
  plan: Plan | null,
): { out: Raster; plan: Plan } {
  const { width: wide, height: high } = source;
  const [width, height] = [wide * times, high * times];
  const side = Math.min(wide, high) / PATCHES;
  const over = Math.max(2, Math.round(side * OVERLAP));
  const columns = Math.max(2, Math.round(width / (side * (1 - OVERLAP))));
  const rows = Math.max(2, Math.round(height / (side * (1 - OVERLAP))));
  const quilt = new Quilt(source, { width, height, data: new Uint8Array(width * height * 4) }, over, seed);
  const at = (index: number, count: number, whole: number): number => Math.round((index * whole) / count);
  const used: Plan = [];
  for (let row = 0; row < rows; row += 1)
    for (let column = 0; column < columns; column += 1) {
      const [x, y] = [at(column, columns, width), at(row, rows, height)];
      const from = quilt.lay(
        {
          x,
          y,
          width: Math.min(wide, at(column + 1, columns, width) - x + over),
          height: Math.min(high, at(row + 1, rows, height) - y + over),
          // Of the row above something lies at the left of the first column too: it goes on round the torus.
          left: column > 0 || row > 0,
          top: row > 0,
          right: column === columns - 1,
          bottom: row === rows - 1,
        },
        plan?.[used.length] ?? null,
      );
      used.push({ x: from.x / wide, y: from.y / high });
    }
  return { out: quilt.out, plan: used };
}

/** Where a patch goes, and on which of its sides something lies already. */
type Place = {
  x: number;
  y: number;
  width: number;
  height: number;
  left: boolean;
  top: boolean;
  right: boolean;
  bottom: boolean;
};

class Quilt {
  private readonly random: () => number;
  /** Where something lies already. */
  private readonly laid: Uint8Array;

  constructor(
    private readonly source: Raster,
    readonly out: Raster,
    private readonly over: number,
    seed: number,
  ) {
    this.random = seededRandom(seed);
    this.laid = new Uint8Array(out.width * out.height);
  }

  /** Lays one patch, from where it was planned or from where it fits best; answers where that is. */
  lay(place: Place, planned: { x: number; y: number } | null): { x: number; y: number } {
    const from = planned ? this.within(place, planned) : this.choose(place);
    const edges = this.cuts(place, from);
    const { width, height } = place;
    for (let y = 0; y < height; y += 1)
      for (let x = 0; x < width; x += 1) {
        // How far within its own cuts a pixel lies decides whose it is, softened over two pixels.
        const within = Math.min(
          edges.left ? x - edges.left[y]! : 1,
          edges.right ? edges.right[y]! - x : 1,
          edges.top ? y - edges.top[x]! : 1,
          edges.bottom ? edges.bottom[x]! - y : 1,
        );
        const to = this.place(place.x + x, place.y + y);
        const share = this.laid[to >> 2] === 0 ? 1 : clamp((within + 1) / 2, 0, 1);
        if (share === 0) continue;
        this.laid[to >> 2] = 1;
        const own = ((from.y + y) * this.source.width + from.x + x) * 4;
        for (let channel = 0; channel < 4; channel += 1)
          this.out.data[to + channel] = Math.round(
            this.out.data[to + channel]! * (1 - share) + this.source.data[own + channel]! * share,
          );
      }
    return from;
  }

  private within(place: Place, planned: { x: number; y: number }): { x: number; y: number } {
    const { width, height } = this.source;
    return {
      x: clamp(Math.round(planned.x * width), 0, width - place.width),
      y: clamp(Math.round(planned.y * height), 0, height - place.height),
    };
  }

  private place(x: number, y: number): number {
    const { width, height } = this.out;
    return ((y % height) * width + (x % width)) * 4;
  }

  /** The part of the texture that differs least from what lies where the patch goes. */
  private choose(place: Place): { x: number; y: number } {
    const roomX = this.source.width - place.width;
    const roomY = this.source.height - place.height;
    let best = { x: 0, y: 0 };
    let least = Infinity;
    const lies = place.left || place.top || place.right || place.bottom;
    for (let count = 0; count < (lies ? CANDIDATES : 1); count += 1) {
      const from = {
        x: Math.floor(this.random() * (roomX + 1)),
        y: Math.floor(this.random() * (roomY + 1)),
      };
      const cost = lies ? this.difference(place, from, least) : 0;
      if (cost >= least) continue;
      least = cost;
      best = from;
    }
    return best;
  }

  /** How much a part of the texture differs from what lies there, given up where it is more than `least`. */
  private difference(place: Place, from: { x: number; y: number }, least: number): number {
    const { width, height } = place;
    const { over } = this;
    let sum = 0;
    for (let y = 0; y < height; y += THIN) {
      const edge = (place.top && y < over) || (place.bottom && y >= height - over);
      for (let x = 0; x < width; x += THIN) {
        if (!edge && !(place.left && x < over) && !(place.right && x >= width - over)) {
          // Nothing lies in the middle of the patch.
          if (x < width - over - THIN) x = width - over - THIN;
          continue;
        }
        sum += this.squared(place, from, x, y);
      }
      if (sum >= least) return sum;
    }
    return sum;
  }

  private squared(place: Place, from: { x: number; y: number }, x: number, y: number): number {
    const to = this.place(place.x + x, place.y + y);
    if (this.laid[to >> 2] === 0) return 0;
    const own = ((from.y + y) * this.source.width + from.x + x) * 4;
    let sum = 0;
    for (let channel = 0; channel < 3; channel += 1)
      sum += (this.out.data[to + channel]! - this.source.data[own + channel]!) ** 2;
    return sum;
  }

  /** For each side on which something lies, the line that the patch is cut along, in px of the patch. */
  private cuts(
    place: Place,
    from: { x: number; y: number },
  ): Record<'left' | 'right' | 'top' | 'bottom', Float64Array | null> {
    const { width, height } = place;
    const over = Math.min(this.over, width - 1, height - 1);
    const upright = (start: number): Float64Array =>
      this.line(height, over, (along, row) => this.squared(place, from, start + row, along), start);
    const lying = (start: number): Float64Array =>
      this.line(width, over, (along, row) => this.squared(place, from, along, start + row), start);
    return {
      left: place.left ? upright(0) : null,
      right: place.right ? upright(width - over) : null,
      top: place.top ? lying(0) : null,
      bottom: place.bottom ? lying(height - over) : null,
    };
  }

  private line(
    length: number,
    high: number,
    cost: (along: number, row: number) => number,
    start: number,
  ): Float64Array {
    const costs = new Float64Array(length * high);
    for (let along = 0; along < length; along += 1)
      for (let row = 0; row < high; row += 1) costs[along * high + row] = cost(along, row);
    const path = leastCut(costs, length, high, false);
    return Float64Array.from(path, (row) => start + row);
  }
}

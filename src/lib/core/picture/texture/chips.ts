import type { Size } from '../../lattice/size';
import { modulo } from '../../num/tolerance';
import { byte, rows, type Greys, type Numbers } from './grains';
import { Fractal, lot } from './noise';

/** Points thrown into a grid that closes, one to a field; two rows more all around, so that none is looked for over an edge. */
class Field {
  readonly columns: number;
  readonly rows: number;
  readonly wide: number;
  readonly high: number;
  /** Fields from one row to the next, with those beyond the edges. */
  readonly stride: number;
  readonly x: Float64Array;
  readonly y: Float64Array;
  /** Of each field the number of the one that it is a repeat of. */
  readonly own: Int32Array;

  /** `loose` says how far a point lies from the middle of its field at most: 1 is anywhere in it. */
  constructor(size: Size, pitch: number, seed: number, loose: number) {
    this.columns = Math.max(1, Math.round(size.width / pitch));
    this.rows = Math.max(1, Math.round(size.height / pitch));
    this.wide = size.width / this.columns;
    this.high = size.height / this.rows;
    this.stride = this.columns + 2 * BEYOND;
    const count = this.stride * (this.rows + 2 * BEYOND);
    this.x = new Float64Array(count);
    this.y = new Float64Array(count);
    this.own = new Int32Array(count);
    for (let row = -BEYOND; row < this.rows + BEYOND; row += 1)
      for (let column = -BEYOND; column < this.columns + BEYOND; column += 1) {
        const own = modulo(row, this.rows) * this.columns + modulo(column, this.columns);
        const at = this.at(column, row);
        this.own[at] = own;
        this.x[at] = (column + 0.5 + loose * (lot(own, 1, seed) - 0.5)) * this.wide;
        this.y[at] = (row + 0.5 + loose * (lot(own, 2, seed) - 0.5)) * this.high;
      }
  }

  at(column: number, row: number): number {
    return (row + BEYOND) * this.stride + column + BEYOND;
  }
}

const BEYOND = 4;

/** How many of the greys of a terrazzo are chips; the last one is its ground. */
const CHIPS = 4;

/** Broken stones in a ground, small ones between the large: flat greys, the ground lightest. */
export function terrazzo(size: Size, seed: number, of: Numbers): Greys {
  const chip = of('chip');
  const large = new Stones(size, { pitch: chip, seed, filled: of('filled'), gap: of('gap') });
  const chippings = { pitch: Math.max(3, chip / 3.3), seed: seed + 50, filled: of('small') * 0.6 };
  const small = new Stones(size, { ...chippings, gap: 0.3 + of('gap') * 0.7 });
  // Broken edges are not quite straight.
  const rough = new Fractal(size, seed + 3, { width: chip / 3, height: chip / 3 }, 0.6, 3);
  const more = new Fractal(size, seed + 4, { width: chip / 3, height: chip / 3 }, 0.6, 3);
  const [across, down] = [new Float64Array(size.width), new Float64Array(size.width)];
  return rows(size, (y) => {
    rough.row(y, across);
    more.row(y, down);
    return (x) => {
      // A large stone's edge may lead beyond the picture, which goes on there from its other side.
      const u = modulo(x + 0.5 + chip * 0.05 * across[x]!, size.width);
      const v = modulo(y + 0.5 + chip * 0.05 * down[x]!, size.height);
      const found = large.at(u, v, chip * 0.06);
      const tone = found === -1 ? small.at(u, v, 0) : found;
      return tone < 0 ? 255 : tone * 64;
    };
  });
}

/** Stones as the fields of a Voronoi diagram, each drawn in from its edges by its own share. */
class Stones {
  private readonly field: Field;
  /** Of each stone its tone, −1 where there is none, and how far it is drawn in, px. */
  private readonly tones: Int8Array;
  private readonly drawnIn: Float64Array;
  private edge = 0;

  constructor(
    size: Size,
    { pitch, seed, filled, gap }: { pitch: number; seed: number; filled: number; gap: number },
  ) {
    this.field = new Field(size, pitch, seed, 0.9);
    const count = this.field.columns * this.field.rows;
    this.tones = Int8Array.from({ length: count }, (_, own) =>
      lot(own, 3, seed) < filled ? Math.floor(lot(own, 5, seed) * CHIPS) : -1,
    );
    this.drawnIn = Float64Array.from({ length: count }, (_, own) =>
      this.tones[own]! < 0 ? 0 : gap * pitch * 0.5 * (0.4 + 1.2 * lot(own, 4, seed)),
    );
  }

  /** The tone of the stone at a place; −1 where none is but something else has room; −2 right beside a stone. */
  at(x: number, y: number, room: number): number {
    const own = this.nearest(x, y);
    const tone = this.tones[own]!;
    const inside = this.edge - this.drawnIn[own]!;
    if (tone < 0) return this.edge > room ? -1 : -2;
    return inside > 0 ? tone : inside < -room ? -1 : -2;
  }

  /** The field whose point is nearest; notes how far its edge is: the least of the lines halfway to the points around. */
  private nearest(x: number, y: number): number {
    const { stride, x: xs, y: ys } = this.field;
    const middle = this.field.at(Math.floor(x / this.field.wide), Math.floor(y / this.field.high));
    let least = Infinity;
    let found = middle;
    for (let row = middle - stride; row <= middle + stride; row += stride)
      for (let at = row - 1; at <= row + 1; at += 1) {
        const dx = xs[at]! - x;
        const dy = ys[at]! - y;
        const far = dx * dx + dy * dy;
        if (far < least) {
          least = far;
          found = at;
        }
      }
    const px = xs[found]! - x;
    const py = ys[found]! - y;
    let edge = Infinity;
    let bound = Infinity;
    for (let row = found - 2 * stride; row <= found + 2 * stride; row += stride)
      for (let at = row - 2; at <= row + 2; at += 1) {
        if (at === found) continue;
        const dx = xs[at]! - x;
        const dy = ys[at]! - y;
        const wx = dx - px;
        const wy = dy - py;
        const beyond = dx * dx + dy * dy - least;
        const apart = wx * wx + wy * wy;
        // Surely further than the nearest edge so far: told without a root.
        if (beyond * beyond > bound * apart) continue;
        const far = beyond / (2 * Math.sqrt(apart));
        if (far >= edge) continue;
        edge = far;
        bound = 4 * far * far * SURELY;
      }
    this.edge = edge;
    return this.field.own[found]!;
  }
}

/** So much more is more whatever was rounded. */
const SURELY = 1 + 1e-9;

/** Round spots of many sizes, dark on light; most of them small. */
export function speckle(size: Size, seed: number, of: Numbers): Greys {
  const { width, height } = size;
  const [largest, much, uneven] = [of('spot'), of('much'), of('uneven')];
  const field = new Field(size, Math.max(2, largest * 1.1), seed, 1);
  const greys = new Uint8Array(width * height).fill(255);
  for (let row = 0; row < field.rows; row += 1)
    for (let column = 0; column < field.columns; column += 1) {
      const at = field.at(column, row);
      const own = field.own[at]!;
      if (lot(own, 3, seed) >= much) continue;
      const small = lot(own, 4, seed);
      const radius = (largest / 2) * (1 - uneven * (1 - small * small * small) * 0.92);
      spot(greys, size, field.x[at]!, field.y[at]!, Math.max(0.4, radius), lot(own, 5, seed));
    }
  return greys;
}

/** One spot, a little longer than wide, its edge smooth over a pixel. */
function spot(
  greys: Greys,
  { width, height }: Size,
  x: number,
  y: number,
  radius: number,
  turn: number,
): void {
  const [long, wide] = [1 + 0.35 * turn, 1 - 0.2 * turn];
  const reach = Math.ceil(radius * long + 1);
  for (let row = Math.floor(y) - reach; row <= Math.floor(y) + reach; row += 1)
    for (let column = Math.floor(x) - reach; column <= Math.floor(x) + reach; column += 1) {
      const [dx, dy] = [column + 0.5 - x, row + 0.5 - y];
      const [u, v] = [(dx + dy * (turn - 0.5)) / long, dy / wide];
      const inside = radius - Math.sqrt(u * u + v * v) + 0.5;
      if (inside <= 0) continue;
      const at = modulo(row, height) * width + modulo(column, width);
      const grey = byte(255 * (1 - Math.min(1, inside)));
      if (grey < greys[at]!) greys[at] = grey;
    }
}

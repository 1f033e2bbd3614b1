import { IDENTITY, type Affine } from '../geom/affine';
import type { Point } from '../geom/point';
import { asFraction } from '../num/fraction';
import { latticeKind } from './groups';
import { latticeOf, pitchOf, type Gap, type Lattice, type Repeat, type Size } from './repeat';

/**
 * The rectangle that an SVG <pattern> repeats: from (0, 0) to (width, height), laid by `matrix` into pattern space.
 * A step such as 1/3 needs a cell of three rows. A step that is no small fraction cannot be a rectangle at all:
 * then the cell is one unit, skewed by `matrix` into the lattice's parallelogram.
 */
export type Cell = { width: number; height: number; matrix: Affine; units: number };

/** Cells of more rows than this are skewed instead: they would hold too much drawing. */
const MOST_ROWS = 8;

/** The smallest rectangular cell of a repeat, or one skewed unit. */
export function cellOf(unit: Size, gap: Gap, repeat: Repeat): Cell {
  const { width, height } = pitchOf(unit, gap, repeat);
  if (repeat.kind === 'straight' || repeat.kind === 'mirror')
    return { width, height, matrix: IDENTITY, units: 1 };
  if (repeat.kind === 'group') {
    switch (latticeKind(repeat.group)) {
      case 'oblique':
        return cellOf({ width, height }, NO_GAP, { kind: 'brick', step: repeat.slant, run: 'progressive' });
      case 'centred rectangular':
        return { width, height, matrix: IDENTITY, units: 2 };
      case 'hexagonal':
        return { width, height: height * 2, matrix: IDENTITY, units: 2 };
      default:
        return { width, height, matrix: IDENTITY, units: 1 };
    }
  }
  const rows = repeat.run === 'alternating' ? 2 : asFraction(repeat.step, MOST_ROWS)?.denominator;
  if (rows !== undefined) {
    return repeat.kind === 'brick'
      ? { width, height: height * rows, matrix: IDENTITY, units: rows }
      : { width: width * rows, height, matrix: IDENTITY, units: rows };
  }
  return parallelogram(latticeOf(unit, gap, { ...repeat, step: centred(repeat.step) }));
}

/** One unit of any lattice as a cell: a rectangle laid into the parallelogram of its two vectors. */
export function parallelogram({ a, b }: Pick<Lattice, 'a' | 'b'>): Cell {
  const width = Math.hypot(a.x, a.y);
  const height = Math.abs(a.x * b.y - a.y * b.x) / width;
  return {
    width,
    height,
    matrix: { a: a.x / width, b: a.y / width, c: b.x / height, d: b.y / height, e: 0, f: 0 },
    units: 1,
  };
}

const NO_GAP: Gap = { across: 0, down: 0 };

/** The corners in pattern space of a block of cells (one by default), in order round it. */
export function cellCorners(cell: Cell, columns = 1, rows = 1): Point[] {
  const { a, b, c, d } = cell.matrix;
  const [width, height] = [cell.width * columns, cell.height * rows];
  const across = { x: a * width, y: b * width };
  const down = { x: c * height, y: d * height };
  return [{ x: 0, y: 0 }, across, { x: across.x + down.x, y: across.y + down.y }, down];
}

/** The area of one unit's share of the plane, gaps included, in px². */
export function unitArea(lattice: Lattice): number {
  return Math.abs(lattice.a.x * lattice.b.y - lattice.a.y * lattice.b.x) / lattice.copies.length;
}

/** A step brought into (−1/2, 1/2]: the same lattice with the smallest skew. */
function centred(step: number): number {
  const rest = step - Math.floor(step);
  return rest > 0.5 ? rest - 1 : rest;
}

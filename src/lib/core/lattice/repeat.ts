import { nearly } from '../num/tolerance';
import { ORIGIN, add, times, type Point } from '../geom/point';

/**
 * How units are laid. Brick shifts each row along, half-drop each column down, by `step` of the unit (with its gap).
 * A progressive run shifts every row further; an alternating run shifts every second row and comes back.
 */
export type Repeat =
  | { kind: 'straight' }
  | { kind: 'brick'; step: number; run: 'progressive' | 'alternating' }
  | { kind: 'half-drop'; step: number; run: 'progressive' | 'alternating' };

export type Size = { width: number; height: number };
export type Gap = { across: number; down: number };

/**
 * The points at which the unit is laid: i·a + j·b + each of `copies`, for all whole i and j. Lengths in px.
 * `copies` has one point, the origin, unless the run alternates.
 */
export type Lattice = { a: Point; b: Point; copies: readonly Point[] };

/** The lattice of a repeat. A step is taken as it is; 1/2, 3/2 and −1/2 lay the same plane. */
export function latticeOf(unit: Size, gap: Gap, repeat: Repeat): Lattice {
  const width = unit.width + gap.across;
  const height = unit.height + gap.down;
  const across: Point = { x: width, y: 0 };
  const down: Point = { x: 0, y: height };
  if (repeat.kind === 'straight') return { a: across, b: down, copies: [ORIGIN] };
  const shift =
    repeat.kind === 'brick' ? { x: repeat.step * width, y: height } : { x: width, y: repeat.step * height };
  if (repeat.run === 'alternating') {
    const copies = [ORIGIN, shift];
    return repeat.kind === 'brick'
      ? { a: across, b: times(down, 2), copies }
      : { a: times(across, 2), b: down, copies };
  }
  return repeat.kind === 'brick'
    ? { a: across, b: shift, copies: [ORIGIN] }
    : { a: shift, b: down, copies: [ORIGIN] };
}

/** A lattice vector: `i` times a and `j` times b. */
export const latticeVector = (lattice: Lattice, i: number, j: number): Point =>
  add(times(lattice.a, i), times(lattice.b, j));

/** True where a shift by `vector` lays the lattice onto itself. */
export function isLatticeVector(lattice: Lattice, vector: Point): boolean {
  const { a, b } = lattice;
  const det = a.x * b.y - a.y * b.x;
  if (det === 0) return false;
  const i = (vector.x * b.y - vector.y * b.x) / det;
  const j = (a.x * vector.y - a.y * vector.x) / det;
  return nearly(i, Math.round(i), 1e-6) && nearly(j, Math.round(j), 1e-6);
}

import { IDENTITY, type Affine } from '../geom/affine';
import { ORIGIN, add, times, type Point } from '../geom/point';
import { nearly } from '../num/tolerance';
import type { Size } from './size';
import { cellSides, groupOperations, groupUnit, latticeKind, type PlaneGroup } from './groups';

export type { Size };

/**
 * How units are laid. Brick shifts each row along, half-drop each column down, by `step` of the unit (with its gap).
 * A progressive run shifts every row further; an alternating run shifts every second row and comes back. Mirror turns
 * every second unit over, across and down. A plane group carries what lies in its asymmetric unit through all its
 * operations; `slant` is how far an oblique cell's lower side is moved along, in shares of its width. `cut` says that art
 * ends at the mirror lines; without it, art that crosses one overlaps its own image.
 */
export type Repeat =
  | { kind: 'straight' }
  | { kind: 'brick'; step: number; run: 'progressive' | 'alternating' }
  | { kind: 'half-drop'; step: number; run: 'progressive' | 'alternating' }
  | { kind: 'mirror'; cut?: boolean }
  | { kind: 'group'; group: PlaneGroup; slant: number; cut?: boolean };

export type Gap = { across: number; down: number };

/** Which neighbours lie in front where units overlap. Down goes before across. */
export type Front = { across: 'right' | 'left'; down: 'lower' | 'upper' };

export const FRONT: Front = { across: 'right', down: 'lower' };

/**
 * The points at which the unit is laid: i·a + j·b + each of `copies`, for all whole i and j. Lengths in px.
 * `copies` has one point, the origin, unless the run alternates; `oneRow` says that the copies lie in one row.
 */
export type Lattice = { a: Point; b: Point; copies: readonly Point[]; oneRow: boolean; front: Front };

/** The lattice of a repeat. A step is taken as it is; 1/2, 3/2 and −1/2 lay the same plane. */
export function latticeOf(unit: Size, gap: Gap, repeat: Repeat, front: Front = FRONT): Lattice {
  const { width, height } = pitchOf(unit, gap, repeat);
  const across: Point = { x: width, y: 0 };
  const down: Point = { x: 0, y: height };
  const plain = (a: Point, b: Point): Lattice => ({ a, b, copies: [ORIGIN], oneRow: true, front });
  switch (repeat.kind) {
    case 'straight':
    case 'mirror':
      return plain(across, down);
    case 'group': {
      const sides = cellSides(repeat.group, unit, repeat.slant);
      if (latticeKind(repeat.group) === 'centred rectangular')
        return plain(across, { x: width / 2, y: height / 2 });
      return plain(sides.across, sides.down);
    }
    case 'brick': {
      const shift = { x: repeat.step * width, y: height };
      if (repeat.run === 'progressive') return plain(across, shift);
      return { a: across, b: times(down, 2), copies: [ORIGIN, shift], oneRow: false, front };
    }
    case 'half-drop': {
      const shift = { x: width, y: repeat.step * height };
      if (repeat.run === 'progressive') return plain(shift, down);
      return { a: times(across, 2), b: down, copies: [ORIGIN, shift], oneRow: true, front };
    }
  }
}

/**
 * How far it is to the next unit across and down, in px: the unit with its gap; for a mirror, the two units of a
 * period; for a plane group, its cell, whose size takes the place of a gap.
 */
export function pitchOf(unit: Size, gap: Gap, repeat: Repeat): Size {
  if (repeat.kind === 'group') return groupUnit(repeat.group, unit);
  const factor = repeat.kind === 'mirror' ? 2 : 1;
  return { width: (unit.width + gap.across) * factor, height: (unit.height + gap.down) * factor };
}

/** The images in which every placing is drawn within one unit of the lattice: matrices in px, the identity first. */
export function imagesOf(unit: Size, gap: Gap, repeat: Repeat): Affine[] {
  if (repeat.kind === 'group') return groupOperations(repeat.group, unit, repeat.slant);
  if (repeat.kind !== 'mirror') return [IDENTITY];
  const right = 2 * unit.width + gap.across;
  const low = 2 * unit.height + gap.down;
  return [
    IDENTITY,
    { a: -1, b: 0, c: 0, d: 1, e: right, f: 0 },
    { a: 1, b: 0, c: 0, d: -1, e: 0, f: low },
    { a: -1, b: 0, c: 0, d: -1, e: right, f: low },
  ];
}

/** A lattice vector: `i` times a and `j` times b. */
export const latticeVector = (lattice: Lattice, i: number, j: number): Point =>
  add(times(lattice.a, i), times(lattice.b, j));

/** A point as shares of the lattice's two vectors. */
export function latticeShares({ a, b }: Pick<Lattice, 'a' | 'b'>, point: Point): Point {
  const det = a.x * b.y - a.y * b.x;
  return { x: (point.x * b.y - point.y * b.x) / det, y: (a.x * point.y - a.y * point.x) / det };
}

/** True where a shift by `vector` lays the lattice onto itself. */
export function isLatticeVector(lattice: Lattice, vector: Point): boolean {
  const { x, y } = latticeShares(lattice, vector);
  return nearly(x, Math.round(x), 1e-6) && nearly(y, Math.round(y), 1e-6);
}

/** How often a repeat of `repeat` px goes into `span` px; 1800 ÷ 216 = 8⅓. */
export function repeatsAcross(span: number, repeat: number): number {
  return span / repeat;
}

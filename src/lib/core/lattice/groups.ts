import { apply, determinant, type Affine } from '../geom/affine';
import type { Point } from '../geom/point';
import { modulo } from '../num/tolerance';
import type { Size } from './size';

/**
 * The 17 plane groups: general positions, lattices and asymmetric units of the International Tables for
 * Crystallography, volume A (Hahn, ed.), part 6, in the Tables' own coordinates (fractions of the cell's two sides,
 * origin as chosen there). Names are the full symbols, written without subscripts and bars.
 */
export const PLANE_GROUPS = [
  'p1',
  'p2',
  'pm',
  'pg',
  'cm',
  'p2mm',
  'p2mg',
  'p2gg',
  'c2mm',
  'p4',
  'p4mm',
  'p4gm',
  'p3',
  'p3m1',
  'p31m',
  'p6',
  'p6mm',
] as const;

export type PlaneGroup = (typeof PLANE_GROUPS)[number];

/** What a lattice asks of the cell: nothing, right angles, equal sides, or equal sides at 120°. */
export type LatticeKind = 'oblique' | 'rectangular' | 'centred rectangular' | 'square' | 'hexagonal';

type GroupEntry = {
  /** The short symbol where it differs from the full one. */
  short: string;
  lattice: LatticeKind;
  /** General positions without the centring, as the Tables print them. */
  positions: string;
  /** Corners of a convex asymmetric unit in order. */
  asymmetric: readonly (readonly [number, number])[];
};

const box = (width: number, height: number): readonly (readonly [number, number])[] => [
  [0, 0],
  [width, 0],
  [width, height],
  [0, height],
];

const THIRD = 1 / 3;
const MIRRORS_6 = '-y,-x; -x+y,y; x,x-y; y,x; x-y,-y; -x,-x+y';
const TURNS_6 = 'x,y; -y,x-y; -x+y,-x; -x,-y; y,-x+y; x-y,x';
const TURNS_4 = 'x,y; -x,-y; -y,x; y,-x';

const GROUPS: Readonly<Record<PlaneGroup, GroupEntry>> = {
  p1: { short: 'p1', lattice: 'oblique', positions: 'x,y', asymmetric: box(1, 1) },
  p2: { short: 'p2', lattice: 'oblique', positions: 'x,y; -x,-y', asymmetric: box(0.5, 1) },
  pm: { short: 'pm', lattice: 'rectangular', positions: 'x,y; -x,y', asymmetric: box(0.5, 1) },
  pg: { short: 'pg', lattice: 'rectangular', positions: 'x,y; -x,y+1/2', asymmetric: box(0.5, 1) },
  cm: { short: 'cm', lattice: 'centred rectangular', positions: 'x,y; -x,y', asymmetric: box(0.5, 0.5) },
  p2mm: {
    short: 'pmm',
    lattice: 'rectangular',
    positions: 'x,y; -x,-y; -x,y; x,-y',
    asymmetric: box(0.5, 0.5),
  },
  p2mg: {
    short: 'pmg',
    lattice: 'rectangular',
    positions: 'x,y; -x,-y; -x+1/2,y; x+1/2,-y',
    asymmetric: box(0.25, 1),
  },
  p2gg: {
    short: 'pgg',
    lattice: 'rectangular',
    positions: 'x,y; -x,-y; -x+1/2,y+1/2; x+1/2,-y+1/2',
    asymmetric: box(0.5, 0.5),
  },
  c2mm: {
    short: 'cmm',
    lattice: 'centred rectangular',
    positions: 'x,y; -x,-y; -x,y; x,-y',
    asymmetric: box(0.25, 0.5),
  },
  p4: { short: 'p4', lattice: 'square', positions: TURNS_4, asymmetric: box(0.5, 0.5) },
  p4mm: {
    short: 'p4m',
    lattice: 'square',
    positions: `${TURNS_4}; -x,y; x,-y; y,x; -y,-x`,
    asymmetric: [
      [0, 0],
      [0.5, 0.5],
      [0, 0.5],
    ],
  },
  p4gm: {
    short: 'p4g',
    lattice: 'square',
    positions: `${TURNS_4}; -x+1/2,y+1/2; x+1/2,-y+1/2; y+1/2,x+1/2; -y+1/2,-x+1/2`,
    asymmetric: [
      [0, 0],
      [0.5, 0],
      [0, 0.5],
    ],
  },
  p3: {
    short: 'p3',
    lattice: 'hexagonal',
    positions: 'x,y; -y,x-y; -x+y,-x',
    asymmetric: [
      [0, 0],
      [0.5, 0],
      [2 * THIRD, THIRD],
      [THIRD, 2 * THIRD],
      [0, 0.5],
    ],
  },
  p3m1: {
    short: 'p3m1',
    lattice: 'hexagonal',
    positions: 'x,y; -y,x-y; -x+y,-x; -y,-x; -x+y,y; x,x-y',
    asymmetric: [
      [0, 0],
      [2 * THIRD, THIRD],
      [THIRD, 2 * THIRD],
    ],
  },
  p31m: {
    short: 'p31m',
    lattice: 'hexagonal',
    positions: 'x,y; -y,x-y; -x+y,-x; y,x; x-y,-y; -x,-x+y',
    asymmetric: [
      [0, 0],
      [0.5, 0],
      [2 * THIRD, THIRD],
      [0.5, 0.5],
    ],
  },
  p6: {
    short: 'p6',
    lattice: 'hexagonal',
    positions: TURNS_6,
    asymmetric: [
      [0, 0],
      [0.5, 0],
      [2 * THIRD, THIRD],
      [0.5, 0.5],
    ],
  },
  p6mm: {
    short: 'p6m',
    lattice: 'hexagonal',
    positions: `${TURNS_6}; ${MIRRORS_6}`,
    asymmetric: [
      [0, 0],
      [0.5, 0],
      [2 * THIRD, THIRD],
    ],
  },
};

export const latticeKind = (group: PlaneGroup): LatticeKind => GROUPS[group].lattice;
export const shortSymbol = (group: PlaneGroup): string => GROUPS[group].short;
export const isPlaneGroup = (text: string): text is PlaneGroup =>
  (PLANE_GROUPS as readonly string[]).includes(text);

/** The multiplicity of the general position: how many copies of a motif the conventional cell holds. */
export function multiplicity(group: PlaneGroup): number {
  const positions = GROUPS[group].positions.split(';').length;
  return latticeKind(group) === 'centred rectangular' ? positions * 2 : positions;
}

/**
 * The cell's sides in px as the group allows them: a square lattice takes its height from the width; so does a
 * hexagonal one, whose height is that between rows. `slant` moves the lower side along, in shares of the width.
 */
export type CellSides = { across: Point; down: Point };

export function cellSides(group: PlaneGroup, unit: Size, slant: number): CellSides {
  const { width, height } = groupUnit(group, unit);
  const across = { x: width, y: 0 };
  switch (latticeKind(group)) {
    case 'oblique':
      return { across, down: { x: slant * width, y: height } };
    case 'hexagonal':
      return { across, down: { x: -width / 2, y: height } };
    default:
      return { across, down: { x: 0, y: height } };
  }
}

/** The unit as the group's lattice allows it; for hexagonal groups the height is the distance between rows. */
export function groupUnit(group: PlaneGroup, unit: Size): Size {
  const kind = latticeKind(group);
  if (kind === 'square') return { width: unit.width, height: unit.width };
  if (kind === 'hexagonal') return { width: unit.width, height: (unit.width * Math.sqrt(3)) / 2 };
  return unit;
}

/**
 * The operations of a group up to the translations of its lattice (for a centred cell, up to the centring too), as
 * matrices in px about the cell's corner. The first one is the identity.
 */
export function groupOperations(group: PlaneGroup, unit: Size, slant = 0): Affine[] {
  const sides = cellSides(group, unit, slant);
  return GROUPS[group].positions.split(';').map((text) => inPixels(readPosition(text), sides));
}

/** The corners of an asymmetric unit: the part of the cell that the operations carry onto everything else. */
export function asymmetricUnit(group: PlaneGroup, unit: Size, slant = 0): Point[] {
  const sides = cellSides(group, unit, slant);
  return GROUPS[group].asymmetric.map(([x, y]) => along(sides, x, y));
}

/** The four corners of the conventional cell, in order. */
export function cellOutline(group: PlaneGroup, unit: Size, slant = 0): Point[] {
  const sides = cellSides(group, unit, slant);
  return [along(sides, 0, 0), along(sides, 1, 0), along(sides, 1, 1), along(sides, 0, 1)];
}

/** A centre of rotation, or a line of reflection or glide reflection through `at` along `direction` (a unit vector). */
export type SymmetryElement =
  | { kind: 'rotation'; order: 2 | 3 | 4 | 6; at: Point }
  | { kind: 'mirror' | 'glide'; at: Point; direction: Point };

/** Every centre and line that meets the conventional cell, each once. */
export function symmetryElements(group: PlaneGroup, unit: Size, slant = 0): SymmetryElement[] {
  const sides = cellSides(group, unit, slant);
  const shifts = shiftsOf(group);
  const centres = new Map<string, Extract<SymmetryElement, { kind: 'rotation' }>>();
  const lines = new Map<string, Exclude<SymmetryElement, { kind: 'rotation' }>>();
  for (const operation of GROUPS[group].positions.split(';').map(readPosition)) {
    for (const [i, j] of shifts) {
      const m = inPixels({ ...operation, e: operation.e + i, f: operation.f + j }, sides);
      if (determinant(m) > 0) addCentre(m, sides, centres);
      else addLine(m, sides, lines);
    }
  }
  return [...lines.values(), ...centres.values()];
}

/** Translations of the lattice near the cell, in fractions, centring included. */
function shiftsOf(group: PlaneGroup): [number, number][] {
  const shifts: [number, number][] = [];
  for (let i = -2; i <= 2; i += 1)
    for (let j = -2; j <= 2; j += 1) {
      shifts.push([i, j]);
      if (latticeKind(group) === 'centred rectangular') shifts.push([i + 0.5, j + 0.5]);
    }
  return shifts;
}

function addCentre(
  m: Affine,
  sides: CellSides,
  found: Map<string, Extract<SymmetryElement, { kind: 'rotation' }>>,
): void {
  const trace = Math.round(m.a + m.d);
  if (trace === 2) return;
  const order = trace === -2 ? 2 : trace === -1 ? 3 : trace === 0 ? 4 : 6;
  const det = (1 - m.a) * (1 - m.d) - m.b * m.c;
  const at = { x: ((1 - m.d) * m.e + m.c * m.f) / det, y: (m.b * m.e + (1 - m.a) * m.f) / det };
  const place = fractionOf(at, sides);
  if (!inCell(place.x) || !inCell(place.y)) return;
  const key = `${Math.round(place.x * 1e4) + 0},${Math.round(place.y * 1e4) + 0}`;
  const held = found.get(key);
  if (!held || order > held.order) found.set(key, { kind: 'rotation', order, at });
}

function addLine(
  m: Affine,
  sides: CellSides,
  found: Map<string, Exclude<SymmetryElement, { kind: 'rotation' }>>,
): void {
  // A reflection turns the angle 2θ: its line runs at θ.
  const angle = Math.atan2(m.b, m.a) / 2;
  const direction = { x: Math.cos(angle), y: Math.sin(angle) };
  const slide = m.e * direction.x + m.f * direction.y;
  const at = { x: (m.e - slide * direction.x) / 2, y: (m.f - slide * direction.y) / 2 };
  if (!crossesCell(at, direction, sides)) return;
  const distance = at.x * -direction.y + at.y * direction.x;
  const turn = modulo(Math.round(angle * 1e4), Math.round(Math.PI * 1e4));
  const key = `${turn}:${Math.round(Math.abs(distance) < 1e-6 ? 0 : distance * 1e3)}`;
  const kind = Math.abs(slide) < 1e-6 ? 'mirror' : 'glide';
  if (found.get(key)?.kind === 'mirror') return;
  // A glide by a whole translation along the line is a reflection seen from another cell.
  found.set(key, { kind, at, direction });
}

const inCell = (share: number): boolean => share > -1e-6 && share < 1 + 1e-6;

function crossesCell(at: Point, direction: Point, sides: CellSides): boolean {
  const corners = [along(sides, 0, 0), along(sides, 1, 0), along(sides, 1, 1), along(sides, 0, 1)];
  const distances = corners.map((p) => (p.x - at.x) * -direction.y + (p.y - at.y) * direction.x);
  return Math.min(...distances) < 1e-6 && Math.max(...distances) > -1e-6;
}

const along = ({ across, down }: CellSides, x: number, y: number): Point => ({
  x: across.x * x + down.x * y,
  y: across.y * x + down.y * y,
});

function fractionOf(point: Point, { across, down }: CellSides): Point {
  const det = across.x * down.y - across.y * down.x;
  return {
    x: (point.x * down.y - point.y * down.x) / det,
    y: (across.x * point.y - across.y * point.x) / det,
  };
}

/** A matrix in fractions taken into px: B · m · B⁻¹ with the cell's sides as the columns of B. */
function inPixels(m: Affine, sides: CellSides): Affine {
  const image = (p: Point): Point => {
    const share = fractionOf(p, sides);
    const to = apply(m, share);
    return along(sides, to.x, to.y);
  };
  const [o, u, v] = [image({ x: 0, y: 0 }), image({ x: 1, y: 0 }), image({ x: 0, y: 1 })];
  return { a: u.x - o.x, b: u.y - o.y, c: v.x - o.x, d: v.y - o.y, e: o.x, f: o.y };
}

/** Reads a position such as `-x+y,-x+1/2` as a matrix in fractions. */
function readPosition(text: string): Affine {
  const [x = '', y = ''] = text.trim().split(',');
  const row = (terms: string): [number, number, number] => {
    const sum: [number, number, number] = [0, 0, 0];
    for (const [, sign, term] of terms.matchAll(/([+-]?)(x|y|1\/2)/g)) {
      const value = sign === '-' ? -1 : 1;
      if (term === 'x') sum[0] += value;
      else if (term === 'y') sum[1] += value;
      else sum[2] += value / 2;
    }
    return sum;
  };
  const [a, c, e] = row(x);
  const [b, d, f] = row(y);
  return { a, b, c, d, e, f };
}

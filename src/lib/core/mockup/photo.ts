import { homography, showPlane, type Corners } from '../geom/corners';
import { cross, subtract, type Point } from '../geom/point';
import type { Size } from '../lattice/size';
import type { MaskStroke } from '../recipe/mask';

/**
 * A surface on a photograph: handles row by row, px of it, and how much of the photograph's light and shade and of its high
 * lights lies on what is printed there.
 */
export type SurfaceGrid = { columns: number; points: readonly Point[]; light: number; gloss: number };

/** A photograph of a blank thing, and the strokes of what lies in front of its surfaces, px of it. */
export type Photo = Size & { asset: string; strokes: readonly MaskStroke[] };

/** Handles of a surface: 2 by 2 are the corners of a plane, more are a curved grid. */
export const GRID_SIDES = { least: 2, most: 7 };
/** A grid is looked at in so many parts between two handles. */
const FINE = 6;

export const rowsOf = ({ columns, points }: SurfaceGrid): number => points.length / columns;
export const isPlane = (grid: SurfaceGrid): boolean => grid.columns === 2 && grid.points.length === 4;

const corner = (grid: SurfaceGrid, column: number, row: number): Point =>
  grid.points[row * grid.columns + column]!;

/** The outer corners of a grid, from the upper left one clockwise. */
export function cornersOfGrid(grid: SurfaceGrid): Corners {
  const [right, low] = [grid.columns - 1, rowsOf(grid) - 1];
  return [corner(grid, 0, 0), corner(grid, right, 0), corner(grid, right, low), corner(grid, 0, low)];
}

/** Where a place of a surface (shares from its upper left corner) lies on the photograph, px. */
export function onPhoto(grid: SurfaceGrid): (u: number, v: number) => Point {
  if (isPlane(grid)) {
    const [a, b, c, d, e, f, g, h] = homography(cornersOfGrid(grid), { width: 1, height: 1 }) as [
      ...[number, number, number, number],
      ...[number, number, number, number],
    ];
    return (u, v) => {
      const whole = 1 / (g * u + h * v + 1);
      return { x: (a * u + b * v + c) * whole, y: (d * u + e * v + f) * whole };
    };
  }
  const [columns, rows] = [grid.columns, rowsOf(grid)];
  return (u, v) => {
    const along = Array.from({ length: rows }, (_, row) =>
      through(columns, u, (column) => corner(grid, column, row)),
    );
    return through(rows, v, (row) => along[row]!);
  };
}

/**
 * A smooth line through handles at even shares: the cubic of Catmull and Rom (1974), whose ends go straight on. With two
 * handles it is straight.
 */
function through(count: number, share: number, at: (index: number) => Point): Point {
  const place = Math.max(0, Math.min(1, share)) * (count - 1);
  const from = Math.min(count - 2, Math.floor(place));
  const t = place - from;
  const [p1, p2] = [at(from), at(from + 1)];
  const p0 = from > 0 ? at(from - 1) : { x: 2 * p1.x - p2.x, y: 2 * p1.y - p2.y };
  const p3 = from + 2 < count ? at(from + 2) : { x: 2 * p2.x - p1.x, y: 2 * p2.y - p1.y };
  const along = (a: number, b: number, c: number, d: number): number =>
    0.5 * (2 * b + (c - a) * t + (2 * a - 5 * b + 4 * c - d) * t * t + (3 * b - a - 3 * c + d) * t ** 3);
  return { x: along(p0.x, p1.x, p2.x, p3.x), y: along(p0.y, p1.y, p2.y, p3.y) };
}

/** What is wrong with the handles of a surface, as a sentence; `null` where they show one. */
export function gridFault(grid: SurfaceGrid): string | null {
  const rows = rowsOf(grid);
  if (!Number.isInteger(rows) || rows < GRID_SIDES.least || grid.columns < GRID_SIDES.least)
    return 'A surface has at least two handles each way.';
  if (isPlane(grid))
    return showPlane(cornersOfGrid(grid))
      ? null
      : 'Its corners cross or dent inwards and show no plane; pull them apart.';
  const at = onPhoto(grid);
  const [columns, lines] = [(grid.columns - 1) * FINE, (rows - 1) * FINE];
  for (let row = 0; row < lines; row += 1)
    for (let column = 0; column < columns; column += 1) {
      const place = (x: number, y: number): Point => at((column + x) / columns, (row + y) / lines);
      const [a, b, c, d] = [place(0, 0), place(1, 0), place(1, 1), place(0, 1)];
      // Each small part must lie the right way round, at both of its ends.
      if (cross(subtract(b, a), subtract(d, a)) <= 0 || cross(subtract(d, c), subtract(b, c)) <= 0)
        return 'The grid is folded over itself; pull the handles apart.';
    }
  return null;
}

/** The same surface with another number of handles, which lie on it. */
export function regrid(grid: SurfaceGrid, columns: number, rows: number): SurfaceGrid {
  const at = onPhoto(grid);
  const round = (value: number): number => Math.round(value * 100) / 100;
  return {
    ...grid,
    columns,
    points: Array.from({ length: columns * rows }, (_, index) => {
      const { x, y } = at((index % columns) / (columns - 1), Math.floor(index / columns) / (rows - 1));
      return { x: round(x), y: round(y) };
    }),
  };
}

/**
 * Width over height of the rectangle that four corners show, where the photograph was taken with square pixels and its middle
 * is where the lens points: Zhang and He 2007, “Whiteboard scanning and image enhancement”, equations 11 to 21. From its sides alone where the
 * plane is seen straight on, or so that the formula gives nothing.
 */
export function planeAspect([m1, m2, m4, m3]: Corners, photo: Size): number {
  const centre = { x: photo.width / 2, y: photo.height / 2 };
  const own = ({ x, y }: Point): [number, number, number] => [x - centre.x, y - centre.y, 1];
  const [a, b, c, d] = [own(m1), own(m2), own(m3), own(m4)];
  const k2 = dot(cross3(a, d), c) / dot(cross3(b, d), c);
  const k3 = dot(cross3(a, d), b) / dot(cross3(c, d), b);
  const n2: Triple = [k2 * b[0] - a[0], k2 * b[1] - a[1], k2 - 1];
  const n3: Triple = [k3 * c[0] - a[0], k3 * c[1] - a[1], k3 - 1];
  const seen =
    (Math.hypot(m2.x - m1.x, m2.y - m1.y) + Math.hypot(m4.x - m3.x, m4.y - m3.y)) /
    (Math.hypot(m3.x - m1.x, m3.y - m1.y) + Math.hypot(m4.x - m2.x, m4.y - m2.y));
  if (Math.abs(n2[2]) < 1e-4 || Math.abs(n3[2]) < 1e-4) return seen;
  const f2 = -(n2[0] * n3[0] + n2[1] * n3[1]) / (n2[2] * n3[2]);
  if (!(f2 > 0)) return seen;
  const far = (n: Triple): number => Math.sqrt((n[0] ** 2 + n[1] ** 2) / f2 + n[2] ** 2);
  const ratio = far(n2) / far(n3);
  return Number.isFinite(ratio) && ratio > 0 ? ratio : seen;
}

type Triple = [number, number, number];
const cross3 = (a: Triple, b: Triple): Triple => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
const dot = (a: Triple, b: Triple): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

/** A fresh plane in the middle of a photograph. */
export function freshGrid({ width, height }: Size): SurfaceGrid {
  const [left, right, top, low] = [width * 0.3, width * 0.7, height * 0.3, height * 0.7].map(Math.round) as [
    ...[number, number, number, number],
  ];
  return {
    columns: 2,
    points: [
      { x: left, y: top },
      { x: right, y: top },
      { x: left, y: low },
      { x: right, y: low },
    ],
    light: 1,
    gloss: 1,
  };
}

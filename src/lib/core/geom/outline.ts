import ClipperLib from 'clipper-lib';
import { flatten, type Path } from './path';
import type { AreaResult } from './boolean';
import type { Point } from './point';
import { polygonPath } from './shapes';
import { modulo } from '../num/tolerance';

export type InkedStroke = {
  width: number;
  cap: 'butt' | 'round' | 'square';
  join: 'miter' | 'round' | 'bevel';
  miterLimit: number;
  dashes: readonly number[];
  /** How far into the dashes the line begins. */
  dashOffset?: number;
};

/** Clipper counts in whole numbers: so many to one px. */
const GRID = 10_000;
/** Curves, round caps and joins keep within this many px of true ones, where nothing else is asked for. */
const TOLERANCE = 0.0025;

/**
 * The area that a stroke inks, as a closed path, dashes cut. Curves are followed in straight pieces
 * that keep within `tolerance` px; offsets and unions are the Clipper library's (A. Johnson).
 */
export function strokeOutline(path: Path, stroke: InkedStroke, tolerance = TOLERANCE): AreaResult {
  const half = stroke.width / 2;
  if (!(half > 0)) return { ok: false, message: 'The stroke has no width, so it has no outline.' };
  const rows = flatten(path, stepsFor(half, tolerance)).flatMap(({ points, closed }) =>
    stroke.dashes.length > 0
      ? dashesOf(points, closed, stroke.dashes, stroke.dashOffset ?? 0).map((dash) => ({
          points: dash,
          closed: false,
        }))
      : [{ points, closed }],
  );
  const outlined = stroke.join === 'bevel' ? bevelled : offsetRows;
  const solution = outlined(rows, stroke, tolerance);
  const rings = solution.map((ring) => ring.map(({ X, Y }): Point => ({ x: X / GRID, y: Y / GRID })));
  if (rings.length === 0) return { ok: false, message: 'The stroke covers no area; its line has no length.' };
  return { ok: true, path: rings.flatMap((ring) => polygonPath(ring)) };
}

type Ring = { X: number; Y: number }[];
type Row = { points: Point[]; closed: boolean };

const onGrid = ({ x, y }: Point): Ring[number] => ({ X: Math.round(x * GRID), Y: Math.round(y * GRID) });

function offsetRows(rows: readonly Row[], stroke: InkedStroke, tolerance: number): Ring[] {
  const offset = new ClipperLib.ClipperOffset(stroke.miterLimit, tolerance * GRID);
  const join = stroke.join === 'round' ? ClipperLib.JoinType.jtRound : ClipperLib.JoinType.jtMiter;
  for (const { points, closed } of rows) {
    const line = tidy(points).map(onGrid);
    if (line.length < 2) continue;
    offset.AddPath(line, join, closed ? ClipperLib.EndType.etClosedLine : CAPS[stroke.cap]);
  }
  const solution: Ring[] = [];
  offset.Execute(solution, (stroke.width / 2) * GRID);
  return solution;
}

/** Cut corners, which Clipper's offsets do not know: every stretch as a strip, a triangle at each corner, all united. */
function bevelled(rows: readonly Row[], stroke: InkedStroke, tolerance: number): Ring[] {
  const half = stroke.width / 2;
  const clipper = new ClipperLib.Clipper();
  const add = (points: Point[]): void => {
    const ring = points.map(onGrid);
    clipper.AddPath(
      ClipperLib.Clipper.Orientation(ring) ? ring : ring.reverse(),
      ClipperLib.PolyType.ptSubject,
      true,
    );
  };
  for (const { points, closed } of rows) {
    const line = tidy(points);
    const count = closed ? line.length : line.length - 1;
    let before: Point | null = null;
    for (let index = 0; index <= count - (closed ? 0 : 1) && count > 0; index += 1) {
      const from = line[index % line.length]!;
      const to = line[(index + 1) % line.length]!;
      const size = Math.hypot(to.x - from.x, to.y - from.y);
      if (size < 1e-9) continue;
      const side = { x: (-(to.y - from.y) / size) * half, y: ((to.x - from.x) / size) * half };
      add([plus(from, side, 1), plus(to, side, 1), plus(to, side, -1), plus(from, side, -1)]);
      if (before) {
        add([from, plus(from, before, 1), plus(from, side, 1)]);
        add([from, plus(from, before, -1), plus(from, side, -1)]);
      }
      before = side;
    }
    if (!closed && stroke.cap !== 'butt') for (const cap of capsOf(line, stroke, tolerance)) add(cap);
  }
  const solution: Ring[] = [];
  const { pftNonZero } = ClipperLib.PolyFillType;
  clipper.Execute(ClipperLib.ClipType.ctUnion, solution, pftNonZero, pftNonZero);
  return solution;
}

const plus = (a: Point, b: Point, factor: 1 | -1): Point => ({
  x: a.x + b.x * factor,
  y: a.y + b.y * factor,
});

/** Round or square caps at both ends of a line, as polygons. */
function capsOf(line: readonly Point[], { cap, width }: InkedStroke, tolerance: number): Point[][] {
  const half = width / 2;
  const ends: [Point | undefined, Point | undefined][] = [
    [line[0], line[1]],
    [line[line.length - 1], line[line.length - 2]],
  ];
  return ends.flatMap(([end, next]) => {
    if (!end || !next) return [];
    const angle = Math.atan2(end.y - next.y, end.x - next.x);
    const at = (turn: number, reach: number): Point => ({
      x: end.x + Math.cos(angle + turn) * reach,
      y: end.y + Math.sin(angle + turn) * reach,
    });
    if (cap === 'round') {
      const steps = Math.max(8, Math.ceil(Math.PI / Math.acos(1 - Math.min(1, tolerance / half))));
      return [Array.from({ length: 2 * steps }, (_, step) => at((Math.PI * step) / steps, half))];
    }
    const corner = half * Math.SQRT2;
    return [
      [at(Math.PI / 2, half), at(Math.PI / 4, corner), at(-Math.PI / 4, corner), at(-Math.PI / 2, half)],
    ];
  });
}

const CAPS = {
  butt: ClipperLib.EndType.etOpenButt,
  round: ClipperLib.EndType.etOpenRound,
  square: ClipperLib.EndType.etOpenSquare,
} as const;

/** Enough pieces for a curve of a length that the error stays near the tolerance. */
const stepsFor =
  (half: number, tolerance: number) =>
  (reach: number): number =>
    Math.min(200, Math.max(4, Math.ceil(Math.sqrt((reach + half) / (8 * tolerance)))));

function tidy(points: readonly Point[]): Point[] {
  return points.filter((point, index) => {
    const before = points[index - 1];
    return !before || Math.hypot(point.x - before.x, point.y - before.y) > 1e-6;
  });
}

/** A line cut into its dashes. */
function dashesOf(
  points: readonly Point[],
  closed: boolean,
  pattern: readonly number[],
  offset: number,
): Point[][] {
  const line = closed && points[0] ? [...points, points[0]] : points;
  const lengths = pattern.length % 2 === 1 ? [...pattern, ...pattern] : [...pattern];
  if (!(lengths.reduce((sum, part) => sum + part, 0) > 0)) return [[...line]];
  const dashes: Point[][] = [];
  const whole = lengths.reduce((sum, part) => sum + part, 0);
  let index = 0;
  let left = (lengths[0] ?? 0) - modulo(offset, whole);
  while (left < 0) {
    index = (index + 1) % lengths.length;
    left += lengths[index] ?? 0;
  }
  let dash: Point[] | null = line[0] && index % 2 === 0 ? [line[0]] : null;
  for (let at = 1; at < line.length; at += 1) {
    let from = line[at - 1]!;
    const to = line[at]!;
    for (;;) {
      const rest = Math.hypot(to.x - from.x, to.y - from.y);
      if (rest < left) {
        left -= rest;
        dash?.push(to);
        break;
      }
      const share = rest === 0 ? 0 : left / rest;
      from = { x: from.x + (to.x - from.x) * share, y: from.y + (to.y - from.y) * share };
      if (dash) dashes.push([...dash, from]);
      index = (index + 1) % lengths.length;
      left = lengths[index] ?? 0;
      dash = index % 2 === 0 ? [from] : null;
      if (rest === 0 && left === 0) break;
    }
  }
  if (dash && dash.length > 1) dashes.push(dash);
  return dashes;
}

import ClipperLib from 'clipper-lib';
import { flatten, type Path } from './path';
import { combineAreas, type AreaResult } from './boolean';
import type { Point } from './point';
import { polygonPath } from './shapes';

export type OutlineStroke = {
  width: number;
  cap: 'butt' | 'round' | 'square';
  join: 'miter' | 'round' | 'bevel';
  miterLimit: number;
  dashes: readonly number[];
};

/** Clipper counts in whole numbers: so many to one px. */
const GRID = 10_000;
/** Round caps and joins keep within this many px of a true arc. */
const ARC_TOLERANCE = 0.01;

/**
 * The area that a stroke inks, as a closed path, dashes cut. Curves are followed in straight pieces so short that
 * they stay within a hundredth of a px; offsets are the Clipper library's (A. Johnson). A bevel is drawn as a miter
 * with the limit 1.
 */
export function strokeOutline(path: Path, stroke: OutlineStroke): AreaResult {
  const half = stroke.width / 2;
  if (!(half > 0)) return { ok: false, message: 'The stroke has no width, so it has no outline.' };
  const rows = flatten(path, stepsFor(path, half)).flatMap(({ points, closed }) =>
    stroke.dashes.length > 0
      ? dashesOf(points, closed, stroke.dashes).map((dash) => ({ points: dash, closed: false }))
      : [{ points, closed }],
  );
  const bevel = stroke.join === 'bevel';
  const offset = new ClipperLib.ClipperOffset(bevel ? 1 : stroke.miterLimit, ARC_TOLERANCE * GRID);
  const join = stroke.join === 'round' ? ClipperLib.JoinType.jtRound : ClipperLib.JoinType.jtMiter;
  for (const { points, closed } of rows) {
    const line = tidy(points).map(({ x, y }) => ({ X: Math.round(x * GRID), Y: Math.round(y * GRID) }));
    if (line.length < 2) continue;
    offset.AddPath(line, join, closed ? ClipperLib.EndType.etClosedLine : CAPS[stroke.cap]);
  }
  const solution: { X: number; Y: number }[][] = [];
  offset.Execute(solution, half * GRID);
  const rings = solution.map((ring) => ring.map(({ X, Y }): Point => ({ x: X / GRID, y: Y / GRID })));
  if (rings.length === 0) return { ok: false, message: 'The stroke covers no area; its line has no length.' };
  return { ok: true, path: rings.flatMap((ring) => polygonPath(ring)) };
}

const CAPS = {
  butt: ClipperLib.EndType.etOpenButt,
  round: ClipperLib.EndType.etOpenRound,
  square: ClipperLib.EndType.etOpenSquare,
} as const;

/** Enough pieces for a curve that the error stays near ARC_TOLERANCE; from the curve's control polygon. */
function stepsFor(path: Path, half: number): number {
  let longest = 0;
  let at: Point = { x: 0, y: 0 };
  for (const segment of path) {
    if (segment.op === 'Z') continue;
    if (segment.op === 'C') {
      const reach =
        Math.hypot(segment.c1.x - at.x, segment.c1.y - at.y) +
        Math.hypot(segment.c2.x - segment.c1.x, segment.c2.y - segment.c1.y) +
        Math.hypot(segment.to.x - segment.c2.x, segment.to.y - segment.c2.y);
      longest = Math.max(longest, reach);
    }
    at = segment.to;
  }
  return Math.min(200, Math.max(8, Math.ceil(Math.sqrt((longest + half) / (8 * ARC_TOLERANCE)))));
}

function tidy(points: readonly Point[]): Point[] {
  return points.filter((point, index) => {
    const before = points[index - 1];
    return !before || Math.hypot(point.x - before.x, point.y - before.y) > 1e-6;
  });
}

/** A line cut into its dashes. */
function dashesOf(points: readonly Point[], closed: boolean, pattern: readonly number[]): Point[][] {
  const line = closed && points[0] ? [...points, points[0]] : points;
  const lengths = pattern.length % 2 === 1 ? [...pattern, ...pattern] : [...pattern];
  if (!(lengths.reduce((sum, part) => sum + part, 0) > 0)) return [[...line]];
  const dashes: Point[][] = [];
  let index = 0;
  let left = lengths[0] ?? 0;
  let dash: Point[] | null = line[0] ? [line[0]] : null;
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

/** Areas united, used where several outlines should become one. */
export const uniteAll = (paths: readonly Path[]): AreaResult =>
  combineAreas(
    'unite',
    paths.map((path) => ({ path, rule: 'nonzero' })),
  );

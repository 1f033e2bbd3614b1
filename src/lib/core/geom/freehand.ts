import paper from 'paper/dist/paper-core';
import { parsePath, type Path } from './path';
import type { Point } from './point';

/**
 * A hand-drawn row of points as a smooth open path that stays within `tolerance` px of them (P. J. Schneider's curve
 * fitting, "An Algorithm for Automatically Fitting Digitized Curves", Graphics Gems, 1990, as Paper.js carries it out).
 */
export function fitFreehand(points: readonly Point[], tolerance: number): Path {
  const scope = new paper.PaperScope();
  scope.setup(new scope.Size(1, 1));
  const path = new scope.Path({ segments: points.map(({ x, y }) => [x, y]), insert: false });
  if (points.length > 2) path.simplify(tolerance);
  const read = parsePath(path.pathData);
  scope.project.remove();
  return read.ok ? read.path : [];
}

/**
 * A row of points without those that lie within `tolerance` px of the line between the ones that stay (U. Ramer 1972;
 * D. H. Douglas and T. K. Peucker 1973). Both ends stay.
 */
export function thinned(points: readonly Point[], tolerance: number): Point[] {
  const stays = new Uint8Array(points.length);
  const open: [number, number][] = [[0, points.length - 1]];
  for (let span = open.pop(); span; span = open.pop()) {
    const [first, last] = span;
    stays[first] = stays[last] = 1;
    let farthest = first;
    let most = tolerance;
    for (let at = first + 1; at < last; at += 1) {
      const off = distanceToSegment(points[at]!, points[first]!, points[last]!);
      if (off > most) [farthest, most] = [at, off];
    }
    if (farthest > first) open.push([first, farthest], [farthest, last]);
  }
  return points.filter((_, at) => stays[at] === 1);
}

function distanceToSegment(point: Point, from: Point, to: Point): number {
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const long = dx * dx + dy * dy;
  const [px, py] = [point.x - from.x, point.y - from.y];
  const along = long === 0 ? 0 : Math.max(0, Math.min(1, (px * dx + py * dy) / long));
  return Math.hypot(px - along * dx, py - along * dy);
}

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

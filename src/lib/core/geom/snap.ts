import { applyVector, rotation } from './affine';
import { add, directionDegrees, length, subtract, type Point } from './point';
/** Where a dragged thing snapped along one axis: how much further it was moved, and the line that it now lies on. */
export type Snap = { shift: number; line: number };

/**
 * The smallest shift that lays one of `edges` (a dragged thing's left, middle and right, say) on one of `lines`, if it
 * is no longer than `reach`; else onto a grid of pitch `grid` by its `anchor`, however far that is. `null` for neither.
 */
export function snapAlong(
  edges: readonly number[],
  lines: readonly number[],
  reach: number,
  anchor: number,
  grid: number | null,
): Snap | null {
  let best: Snap | null = null;
  for (const line of lines) {
    for (const edge of edges) {
      const shift = line - edge;
      if (Math.abs(shift) <= reach && (!best || Math.abs(shift) < Math.abs(best.shift)))
        best = { shift, line };
    }
  }
  if (best || grid === null || !(grid > 0)) return best;
  const line = Math.round(anchor / grid) * grid;
  return { shift: line - anchor, line };
}

/** An angle in degrees brought to the nearest multiple of `step`. */
export const snapAngle = (degrees: number, step: number): number => Math.round(degrees / step) * step;

/** The point as far from `from` as `to` is, in the nearest direction that is a multiple of `step` degrees. */
export function pointInSteps(from: Point, to: Point, step: number): Point {
  const by = subtract(to, from);
  const turn = rotation(snapAngle(directionDegrees(by), step));
  return add(from, applyVector(turn, { x: length(by), y: 0 }));
}

import { cross, dot, length, times, add, type Point } from '../geom/point';
import type { Lattice } from './repeat';

/** Two independent vectors that carry a plane onto itself; lengths in px. */
export type Periods = Pick<Lattice, 'a' | 'b'>;

/** How many whole periods cover a length, and the factor by which the period must grow for it. */
export type WholeFit = { count: number; factor: number };

/**
 * The whole number of periods that covers `span` px with the least scaling, counted as a ratio: between n and n + 1
 * the border is √(n(n + 1)). At least one.
 */
export function wholeFit(span: number, period: number): WholeFit {
  const fitting = span / period;
  const below = Math.max(1, Math.floor(fitting));
  const count = fitting * fitting > below * (below + 1) ? below + 1 : below;
  return { count, factor: fitting / count };
}

/** The shortest period along a direction, px, by Lagrange–Gauss reduction; `null` where no short one lies on it. */
export function periodAlong(periods: Periods, direction: Point): number | null {
  const { a, b } = reduced(periods);
  const unit = times(direction, 1 / length(direction));
  let shortest: number | null = null;
  for (let i = -FARTHEST; i <= FARTHEST; i++) {
    for (let j = -FARTHEST; j <= FARTHEST; j++) {
      const vector = add(times(a, i), times(b, j));
      const along = dot(vector, unit);
      if (along <= 0 || Math.abs(cross(vector, unit)) > STRAIGHT * along) continue;
      if (shortest === null || along < shortest) shortest = along;
    }
  }
  return shortest;
}

/** The point of the lattice nearest to `point`: reduced basis, rounding, and its eight neighbours. */
export function nearestPeriod(periods: Periods, point: Point): Point {
  const { a, b } = reduced(periods);
  const area = cross(a, b);
  const i = Math.round(cross(point, b) / area);
  const j = Math.round(cross(a, point) / area);
  let best: Point = { x: 0, y: 0 };
  let distance = Infinity;
  for (const di of [-1, 0, 1]) {
    for (const dj of [-1, 0, 1]) {
      const candidate = add(times(a, i + di), times(b, j + dj));
      const away = Math.hypot(candidate.x - point.x, candidate.y - point.y);
      if (away < distance - 1e-12) [best, distance] = [candidate, away];
    }
  }
  return best;
}

/** Multiples of the reduced vectors that are looked at: a longer period repeats too rarely to be fitted by eye. */
const FARTHEST = 24;
/** How far off the direction a period may point, as a sine. */
const STRAIGHT = 1e-7;

/** The same lattice by its two shortest vectors (Lagrange's and Gauss's reduction). */
function reduced(periods: Periods): Periods {
  let { a, b } = periods;
  for (let round = 0; round < 64; round++) {
    if (dot(b, b) < dot(a, a)) [a, b] = [b, a];
    const turns = Math.round(dot(a, b) / dot(a, a));
    if (turns === 0) break;
    b = add(b, times(a, -turns));
  }
  return { a, b };
}

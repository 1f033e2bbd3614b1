import { applyVector, rotation } from '../geom/affine';
import { directionDegrees, length, times, type Point } from '../geom/point';
import { nearestPeriod, periodAlong, wholeFit, type Periods } from '../lattice/span';
import { nearly, roundTo, wrapDegrees } from '../num/tolerance';
import { placeLinear, type PatternFill } from './fill';
import type { Shape } from './layout';
import { LIMITS } from './limits';

/** Along which sides of a shape whole repeats are wanted; the turning ones give the pattern another angle for it. */
export const WHOLE_WAYS = ['across', 'down', 'both', 'turned across', 'turned down'] as const;
export type WholeWay = (typeof WHOLE_WAYS)[number];

/** A fill with whole repeats: how many span the sides (a turned pattern only closes), and its new numbers. */
export type WholeRepeats = {
  counts: readonly number[];
  scaleX: number;
  scaleY: number;
  rotation: number;
};

/**
 * The nearest numbers at which a pattern spans a shape in whole repeats; lengths px, angles degrees. *Across* and
 * *down* keep its proportions; *both* scales each of its axes; the turning ways take the lattice point nearest to the
 * side's far end onto it. `null` where the way does not exist for the fill as it lies, or leaves the limits of scale.
 */
export function wholeRepeats(
  shape: Pick<Shape, 'width' | 'height' | 'rotation'>,
  fill: PatternFill,
  periods: Periods,
  way: WholeWay,
): WholeRepeats | null {
  const laid = placeLinear(fill);
  const onPage: Periods = { a: applyVector(laid, periods.a), b: applyVector(laid, periods.b) };
  const axes = rotation(shape.rotation);
  const right: Point = { x: axes.a, y: axes.b };
  const low: Point = { x: axes.c, y: axes.d };
  switch (way) {
    case 'across':
      return along(fill, onPage, right, shape.width);
    case 'down':
      return along(fill, onPage, low, shape.height);
    case 'both': {
      const quarter = quartersTurned(fill, shape);
      const across = along(fill, onPage, right, shape.width);
      const down = along(fill, onPage, low, shape.height);
      if (quarter === null || !across || !down) return null;
      const [x, y] = quarter % 2 === 0 ? [across, down] : [down, across];
      return within({ ...x, counts: [...across.counts, ...down.counts], scaleY: y.scaleY });
    }
    case 'turned across':
      return turned(fill, onPage, right, shape.width);
    case 'turned down':
      return turned(fill, onPage, low, shape.height);
  }
}

function along(fill: PatternFill, onPage: Periods, direction: Point, span: number): WholeRepeats | null {
  const period = periodAlong(onPage, direction);
  if (period === null) return null;
  const { count, factor } = wholeFit(span, period);
  return within({
    counts: [count],
    scaleX: fill.scaleX * factor,
    scaleY: fill.scaleY * factor,
    rotation: fill.rotation,
  });
}

function turned(fill: PatternFill, onPage: Periods, direction: Point, span: number): WholeRepeats | null {
  if (periodAlong(onPage, direction) !== null) return null;
  const end = times(direction, span);
  const point = nearestPeriod(onPage, end);
  if (length(point) < 1e-9) return null;
  const factor = span / length(point);
  const turn = wrapDegrees(directionDegrees(end) - directionDegrees(point));
  return within({
    counts: [],
    scaleX: fill.scaleX * factor,
    scaleY: fill.scaleY * factor,
    rotation: roundTo(wrapDegrees(fill.rotation + turn), 9),
  });
}

/** Quarter turns of the pattern against its shape; `null` where its axes do not lie along the shape's sides. */
function quartersTurned(fill: PatternFill, shape: Pick<Shape, 'rotation'>): number | null {
  const quarters = (fill.rotation - shape.rotation) / 90;
  return fill.skew === 0 && nearly(quarters, Math.round(quarters), 1e-9)
    ? Math.abs(Math.round(quarters))
    : null;
}

function within(fit: WholeRepeats): WholeRepeats | null {
  const { least, most } = LIMITS.scale;
  const allowed = [fit.scaleX, fit.scaleY].every(
    (scale) => Math.abs(scale) >= least && Math.abs(scale) <= most,
  );
  return allowed ? fit : null;
}

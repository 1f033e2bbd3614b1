import { polygonContains, polygonHull } from 'd3-polygon';
import type { Path, Segment } from './path';
import type { Point } from './point';

/** Shorter paths are measured as they are. */
const FEW = 48;
/** Corners of the polygon that curves are held against: more would find few more curves, and take longer. */
const MOST_CORNERS = 64;

const held = new WeakMap<Path, Path>();

/**
 * A short path with the same box under every affine map: the corners of the convex hull of all points that the path goes
 * through, and the curves with a control point outside of it. No other part can reach further (a cubic curve lies in the
 * hull of its control points), and affine maps keep hulls. What was found for a path is remembered as long as it lives.
 */
export function outermost(path: Path): Path {
  if (path.length <= FEW) return path;
  const known = held.get(path);
  if (known) return known;
  const found = reduced(path);
  held.set(path, found);
  return found;
}

function reduced(path: Path): Path {
  const points = path.flatMap((segment) => (segment.op === 'Z' ? [] : [pair(segment.to)]));
  const hull = polygonHull(points);
  if (!hull) return path;
  const every = Math.ceil(hull.length / MOST_CORNERS);
  const inner = hull.filter((_, index) => index % every === 0);
  const within = (point: Point): boolean => polygonContains(inner, pair(point));
  return [
    ...hull.map(([x, y]): Segment => ({ op: 'M', to: { x, y } })),
    ...curvesOf(path).flatMap(({ from, curve }): Path =>
      within(curve.c1) && within(curve.c2) ? [] : [{ op: 'M', to: from }, curve],
    ),
  ];
}

const pair = ({ x, y }: Point): [number, number] => [x, y];

type Curve = { from: Point; curve: Extract<Segment, { op: 'C' }> };

function curvesOf(path: Path): Curve[] {
  const curves: Curve[] = [];
  let at: Point = { x: 0, y: 0 };
  let start = at;
  for (const segment of path) {
    if (segment.op === 'Z') {
      at = start;
      continue;
    }
    if (segment.op === 'C') curves.push({ from: at, curve: segment });
    at = segment.to;
    if (segment.op === 'M') start = at;
  }
  return curves;
}

import { IDENTITY, apply, type Affine } from '../geom/affine';
import { boxesMeet, grow, moveBox, type Box } from '../geom/box';
import { flatten, type FillRule } from '../geom/path';
import type { Point } from '../geom/point';
import type { Element } from './motif';
import type { Piece } from './piece';

/** Curves are cut into so many straight pieces when distances are measured. */
const CURVE_STEPS = 12;

/** What one element inks, in unit space: rows of points, filled or stroked `half` px to each side. */
export type Ink = {
  rings: { points: Point[]; closed: boolean }[];
  filled: boolean;
  rule: FillRule;
  half: number;
};

/** The ink of a piece; curves as fine polygons. Clips are taken as they are drawn: what a clip hides counts as ink. */
export function inkOf(piece: Pick<Piece, 'elements' | 'matrix'>, steps = CURVE_STEPS): Ink[] {
  return piece.elements.flatMap((element) => elementInk(element, piece.matrix, steps) ?? []);
}

function elementInk(element: Element, matrix: Affine, steps: number): Ink | null {
  const { stroke, fill, picture, path, fillRule } = element;
  const filled = fill !== null || picture !== null;
  if (!filled && !stroke) return null;
  const rings = flatten(path, steps)
    .filter((ring) => ring.points.length > 1)
    .map(({ points, closed }) => ({ points: points.map((point) => apply(matrix, point)), closed }));
  const scale = Math.sqrt(Math.abs(matrix.a * matrix.d - matrix.b * matrix.c));
  return { rings, filled, rule: fillRule, half: stroke ? (stroke.width * scale) / 2 : 0 };
}

/** How far a motif's ink reaches from its origin, in px: the radius of the circle that holds it. */
export function motifReach(motif: { elements: Element[] }): number {
  const inks = inkOf({ elements: motif.elements, matrix: IDENTITY });
  return inks.reduce(
    (most, { rings, half }) =>
      rings.reduce(
        (reach, { points }) =>
          points.reduce((far, { x, y }) => Math.max(far, Math.hypot(x, y) + half), reach),
        most,
      ),
    0,
  );
}

/** A straight stretch of an outline, with what it is drawn with beyond its line. */
export type Segment = { from: Point; to: Point; half: number; piece: number };

/** The segments of an ink's outlines; filled open rings are closed. */
export function segmentsOf(inks: readonly Ink[], piece: number): Segment[] {
  const segments: Segment[] = [];
  for (const { rings, filled, half } of inks) {
    for (const { points, closed } of rings) {
      const count = closed || filled ? points.length : points.length - 1;
      for (let index = 0; index < count; index += 1) {
        const from = points[index];
        const to = points[(index + 1) % points.length];
        if (from && to) segments.push({ from, to, half, piece });
      }
    }
  }
  return segments;
}

/** The distance from a point to a segment's line, in px. */
export function distanceToSegment(p: Point, from: Point, to: Point): number {
  const dx = to.x - from.x;
  const dy = to.y - from.y;
  const size = dx * dx + dy * dy;
  const t = size === 0 ? 0 : Math.min(1, Math.max(0, ((p.x - from.x) * dx + (p.y - from.y) * dy) / size));
  return Math.hypot(p.x - from.x - t * dx, p.y - from.y - t * dy);
}

/** The distance between two segments: 0 where they cross. */
export function segmentDistance(a: Point, b: Point, c: Point, d: Point): number {
  if (cross(a, b, c, d)) return 0;
  return Math.min(
    distanceToSegment(a, c, d),
    distanceToSegment(b, c, d),
    distanceToSegment(c, a, b),
    distanceToSegment(d, a, b),
  );
}

function cross(a: Point, b: Point, c: Point, d: Point): boolean {
  const side = (p: Point, q: Point, r: Point): number =>
    (q.x - p.x) * (r.y - p.y) - (q.y - p.y) * (r.x - p.x);
  return side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0;
}

/** True where a point lies on the fill of an ink. */
export function insideInk({ rings, filled, rule }: Ink, p: Point): boolean {
  if (!filled) return false;
  let winding = 0;
  for (const { points } of rings) {
    for (let index = 0; index < points.length; index += 1) {
      const from = points[index]!;
      const to = points[(index + 1) % points.length]!;
      if (from.y > p.y === to.y > p.y) continue;
      const x = from.x + ((p.y - from.y) / (to.y - from.y)) * (to.x - from.x);
      if (x > p.x) winding += to.y > from.y ? 1 : -1;
    }
  }
  return rule === 'evenodd' ? winding % 2 !== 0 : winding !== 0;
}

/** An ink moved by a vector. */
export function moveInk(ink: Ink, by: Point): Ink {
  const rings = ink.rings.map(({ points, closed }) => ({
    closed,
    points: points.map(({ x, y }) => ({ x: x + by.x, y: y + by.y })),
  }));
  return { ...ink, rings };
}

/** How near two inked things come, in px: 0 where they touch or overlap. Stops looking below `enough`. */
export function inkDistance(one: readonly Ink[], other: readonly Ink[], enough = 0): number {
  const [here, there] = [segmentsOf(one, 0), segmentsOf(other, 1)];
  const corner = here[0]?.from;
  const far = there[0]?.from;
  if (!corner || !far) return Infinity;
  if (other.some((ink) => insideInk(ink, corner)) || one.some((ink) => insideInk(ink, far))) return 0;
  let least = Infinity;
  for (const s of here) {
    for (const t of there) {
      const reach = s.half + t.half + least;
      if (Math.min(s.from.x, s.to.x) - Math.max(t.from.x, t.to.x) > reach) continue;
      if (Math.min(t.from.x, t.to.x) - Math.max(s.from.x, s.to.x) > reach) continue;
      if (Math.min(s.from.y, s.to.y) - Math.max(t.from.y, t.to.y) > reach) continue;
      if (Math.min(t.from.y, t.to.y) - Math.max(s.from.y, s.to.y) > reach) continue;
      least = Math.min(least, Math.max(0, segmentDistance(s.from, s.to, t.from, t.to) - s.half - t.half));
      if (least <= enough) return least;
    }
  }
  return least;
}

/** True where two boxes, one moved by an offset, come nearer than `reach`. */
export const boxesNear = (one: Box, other: Box, offset: Point, reach: number): boolean =>
  boxesMeet(grow(one, reach), moveBox(other, offset));

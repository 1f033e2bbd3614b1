import { flatten, transformPath } from '../geom/path';
import type { Affine } from '../geom/affine';
import type { Point } from '../geom/point';
import type { Edge } from '../lattice/abut';
import type { Element } from './motif';

/** How many straight pieces stand for a curve when edges are compared. */
const CURVE_STEPS = 12;

/**
 * The edges that bound an element's opaque ink, in unit space: the outline of its fill, and the butt ends of its
 * stroke. See-through elements have none, since a line under them would show.
 */
export function elementEdges(element: Element, matrix: Affine, piece: number): Edge[] {
  if (element.opacity < 1 || element.clip || element.picture) return [];
  const path = transformPath(matrix, element.path);
  const rings = flatten(path, CURVE_STEPS);
  const edges: Edge[] = [];
  const { fill } = element;
  if (typeof fill === 'string') {
    const outlines = rings.map((ring) => ring.points).filter((points) => points.length > 2);
    outlines.forEach((points, index) => {
      const others = outlines.filter((_, other) => other !== index);
      edges.push(...outlineEdges(points, others, fill, piece));
    });
  }
  const { stroke } = element;
  if (stroke && stroke.cap === 'butt' && stroke.dashes.length === 0) {
    const width = stroke.width * Math.sqrt(Math.abs(matrix.a * matrix.d - matrix.b * matrix.c));
    for (const ring of rings) {
      if (ring.closed) continue;
      const ends = endEdges(ring.points, width, stroke.slot, piece);
      edges.push(...ends, ...(ring.points.length === 2 ? sideEdges(ends) : []));
    }
  }
  return edges;
}

function outlineEdges(
  points: readonly Point[],
  others: readonly Point[][],
  paint: string,
  piece: number,
): Edge[] {
  const first = points[0];
  if (!first) return [];
  const depth = others.filter((ring) => contains(ring, first)).length;
  const clockwise = signedArea(points) > 0;
  const side = clockwise === (depth % 2 === 0) ? 1 : -1;
  return points.flatMap((from, index): Edge[] => {
    const to = points[(index + 1) % points.length] ?? first;
    const size = Math.hypot(to.x - from.x, to.y - from.y);
    if (size < 1e-6) return [];
    const inward = { x: (-(to.y - from.y) / size) * side, y: ((to.x - from.x) / size) * side };
    return [{ from, to, inward, piece, paint }];
  });
}

function endEdges(points: readonly Point[], width: number, paint: string, piece: number): Edge[] {
  const ends = [
    [points[0], points[1]],
    [points[points.length - 1], points[points.length - 2]],
  ];
  return ends.flatMap(([end, next]): Edge[] => {
    if (!end || !next) return [];
    const size = Math.hypot(next.x - end.x, next.y - end.y);
    if (size < 1e-9) return [];
    const inward = { x: (next.x - end.x) / size, y: (next.y - end.y) / size };
    const half: Point = { x: (-inward.y * width) / 2, y: (inward.x * width) / 2 };
    const from = { x: end.x - half.x, y: end.y - half.y };
    const to = { x: end.x + half.x, y: end.y + half.y };
    return [{ from, to, inward, piece, paint }];
  });
}

/** The long sides of a straight stroke, from its two ends. */
function sideEdges(ends: readonly Edge[]): Edge[] {
  const [start, finish] = ends;
  if (!start || !finish) return [];
  const across = { x: start.to.x - start.from.x, y: start.to.y - start.from.y };
  const width = Math.hypot(across.x, across.y) || 1;
  const normal = { x: across.x / width, y: across.y / width };
  const { piece, paint } = start;
  return [
    { from: start.from, to: finish.to, inward: normal, piece, paint },
    { from: start.to, to: finish.from, inward: { x: -normal.x, y: -normal.y }, piece, paint },
  ];
}

/** Twice the area with its sign: positive for a ring that runs clockwise on the screen. */
function signedArea(points: readonly Point[]): number {
  let twice = 0;
  points.forEach((from, index) => {
    const to = points[(index + 1) % points.length] ?? from;
    twice += from.x * to.y - to.x * from.y;
  });
  return twice;
}

/** Even-odd point in polygon, by crossings of the ray to the right. */
function contains(ring: readonly Point[], point: Point): boolean {
  let inside = false;
  ring.forEach((from, index) => {
    const to = ring[(index + 1) % ring.length] ?? from;
    if (from.y > point.y === to.y > point.y) return;
    const x = from.x + ((point.y - from.y) / (to.y - from.y)) * (to.x - from.x);
    if (x > point.x) inside = !inside;
  });
  return inside;
}

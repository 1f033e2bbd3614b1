import svgpath from 'svgpath';
import { apply, translation, type Affine } from './affine';
import type { Box } from './box';
import type { Point } from './point';

/** One step of a path in absolute coordinates; arcs and quadratic curves are raised to cubic ones on reading. */
export type Segment =
  | { op: 'M'; to: Point }
  | { op: 'L'; to: Point }
  | { op: 'C'; c1: Point; c2: Point; to: Point }
  | { op: 'Z' };

export type Path = Segment[];

/** How windings tell what a path fills (SVG 2, 13.4.2). */
export type FillRule = 'nonzero' | 'evenodd';

export type PathResult = { ok: true; path: Path } | { ok: false; message: string };

/** Reads SVG path data (SVG 2, chapter 9). The grammar's error rule is not followed: a fault refuses the whole path. */
export function parsePath(d: string): PathResult {
  const reader = svgpath(d) as unknown as { err: string } & ReturnType<typeof svgpath>;
  if (reader.err) return { ok: false, message: `The path data cannot be read: ${reader.err}.` };
  const path: Path = [];
  let at: Point = { x: 0, y: 0 };
  let start: Point = at;
  let finite = true;
  reader
    .abs()
    .unarc()
    .unshort()
    .iterate((segment: readonly unknown[]) => {
      const op = segment[0] as string;
      const n = segment.slice(1) as number[];
      if (!n.every(Number.isFinite)) finite = false;
      const point = (index: number): Point => ({ x: n[index] ?? 0, y: n[index + 1] ?? 0 });
      if (op === 'M') {
        at = start = point(0);
        path.push({ op: 'M', to: at });
      } else if (op === 'Z' || op === 'z') {
        at = start;
        path.push({ op: 'Z' });
      } else if (op === 'C') {
        path.push({ op: 'C', c1: point(0), c2: point(2), to: (at = point(4)) });
      } else if (op === 'Q') {
        path.push({ op: 'C', ...raiseQuadratic(at, point(0), point(2)) });
        at = point(2);
      } else {
        at = op === 'H' ? { x: n[0] ?? 0, y: at.y } : op === 'V' ? { x: at.x, y: n[0] ?? 0 } : point(0);
        path.push({ op: 'L', to: at });
      }
    });
  if (!finite) return { ok: false, message: 'The path data hold a number that is not finite.' };
  return { ok: true, path };
}

/** A path as SVG path data. Inverse of {@link parsePath}; `digits` decimals. */
export function formatPath(path: Path, digits = 4): string {
  const n = (value: number): string => String(Math.round(value * 10 ** digits) / 10 ** digits + 0);
  const p = (point: Point): string => `${n(point.x)} ${n(point.y)}`;
  return path
    .map((segment) => {
      if (segment.op === 'Z') return 'Z';
      if (segment.op === 'C') return `C${p(segment.c1)} ${p(segment.c2)} ${p(segment.to)}`;
      return `${segment.op}${p(segment.to)}`;
    })
    .join('');
}

/** A path through a matrix. */
export function transformPath(m: Affine, path: Path): Path {
  return path.map((segment) => {
    if (segment.op === 'Z') return segment;
    if (segment.op === 'C')
      return { op: 'C', c1: apply(m, segment.c1), c2: apply(m, segment.c2), to: apply(m, segment.to) };
    return { op: segment.op, to: apply(m, segment.to) };
  });
}

/** Path data moved by `by`; text that is no path stays as it is. */
export function movedPath(d: string, by: Point): string {
  const read = parsePath(d);
  return read.ok ? formatPath(transformPath(translation(by.x, by.y), read.path)) : d;
}

/** The exact box of a path's line (curve extremes included, stroke width not), or `null` for an empty path. */
export function pathBox(path: Path): Box | null {
  let left = Infinity;
  let top = Infinity;
  let right = -Infinity;
  let bottom = -Infinity;
  const take = (p: Point): void => {
    left = Math.min(left, p.x);
    right = Math.max(right, p.x);
    top = Math.min(top, p.y);
    bottom = Math.max(bottom, p.y);
  };
  let at: Point = { x: 0, y: 0 };
  let start: Point = at;
  for (const segment of path) {
    if (segment.op === 'Z') {
      at = start;
      continue;
    }
    take(segment.to);
    if (segment.op === 'C') for (const t of extremes(at, segment)) take(cubicAt(at, segment, t));
    at = segment.to;
    if (segment.op === 'M') start = at;
  }
  return left <= right ? { x: left, y: top, width: right - left, height: bottom - top } : null;
}

export type Cubic = Extract<Segment, { op: 'C' }>;

/** The point of a cubic curve from `from` at parameter `t`. */
export function cubicAt(from: Point, curve: Cubic, t: number): Point {
  const u = 1 - t;
  const [w0, w1, w2, w3] = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t];
  return {
    x: w0 * from.x + w1 * curve.c1.x + w2 * curve.c2.x + w3 * curve.to.x,
    y: w0 * from.y + w1 * curve.c1.y + w2 * curve.c2.y + w3 * curve.to.y,
  };
}

/** A cubic curve from `from` in two at parameter `t` (de Casteljau): the first ends where the second begins. */
export function splitCubic(from: Point, { c1, c2, to }: Cubic, t: number): [Cubic, Cubic] {
  const mix = (p: Point, q: Point): Point => ({ x: p.x + (q.x - p.x) * t, y: p.y + (q.y - p.y) * t });
  const [a, b, c] = [mix(from, c1), mix(c1, c2), mix(c2, to)];
  const [d, e] = [mix(a, b), mix(b, c)];
  return [
    { op: 'C', c1: a, c2: d, to: mix(d, e) },
    { op: 'C', c1: e, c2: c, to },
  ];
}

/**
 * The path as polygons: every subpath a row of points; `closed` says whether it ends with Z. Curves are cut into `steps`
 * pieces, or into as many as it says for the length of a curve's control polygon.
 */
export function flatten(
  path: Path,
  steps: number | ((reach: number) => number) = 16,
): { points: Point[]; closed: boolean }[] {
  const rings: { points: Point[]; closed: boolean }[] = [];
  let ring: { points: Point[]; closed: boolean } | null = null;
  let at: Point = { x: 0, y: 0 };
  let start: Point = at;
  for (const segment of path) {
    if (segment.op === 'M') {
      ring = { points: [segment.to], closed: false };
      rings.push(ring);
      at = start = segment.to;
      continue;
    }
    if (segment.op === 'Z') {
      if (ring) ring.closed = true;
      ring = null;
      at = start;
      continue;
    }
    if (!ring) rings.push((ring = { points: [at], closed: false }));
    if (segment.op === 'C') {
      const pieces = typeof steps === 'number' ? steps : steps(reachOf(at, segment));
      for (let step = 1; step < pieces; step += 1) ring.points.push(cubicAt(at, segment, step / pieces));
    }
    ring.points.push(segment.to);
    at = segment.to;
  }
  return rings;
}

/** The length of a curve's control polygon; the curve itself is no longer. */
const reachOf = (from: Point, { c1, c2, to }: Cubic): number =>
  Math.hypot(c1.x - from.x, c1.y - from.y) +
  Math.hypot(c2.x - c1.x, c2.y - c1.y) +
  Math.hypot(to.x - c2.x, to.y - c2.y);

function raiseQuadratic(from: Point, control: Point, to: Point): { c1: Point; c2: Point; to: Point } {
  const towards = (p: Point): Point => ({
    x: p.x + ((control.x - p.x) * 2) / 3,
    y: p.y + ((control.y - p.y) * 2) / 3,
  });
  return { c1: towards(from), c2: towards(to), to };
}

function extremes(from: Point, curve: Cubic): number[] {
  return [
    ...cubicTurns(from.x, curve.c1.x, curve.c2.x, curve.to.x),
    ...cubicTurns(from.y, curve.c1.y, curve.c2.y, curve.to.y),
  ].filter((t) => t > 0 && t < 1);
}

/** Where the derivative of a cubic in Bernstein form is nought. */
export function cubicTurns(p0: number, p1: number, p2: number, p3: number): number[] {
  const a = -p0 + 3 * p1 - 3 * p2 + p3;
  const b = 2 * (p0 - 2 * p1 + p2);
  const c = p1 - p0;
  if (Math.abs(a) < 1e-12) return Math.abs(b) < 1e-12 ? [] : [-c / b];
  const discriminant = b * b - 4 * a * c;
  if (discriminant < 0) return [];
  const root = Math.sqrt(discriminant);
  return [(-b + root) / (2 * a), (-b - root) / (2 * a)];
}

/** The same outline run through the other way, ring by ring. */
export function reversedPath(path: Path): Path {
  const rings: Path[] = [];
  for (const segment of path) {
    if (segment.op === 'M' || rings.length === 0) rings.push([segment]);
    else rings[rings.length - 1]!.push(segment);
  }
  return rings.flatMap((ring) => {
    const closed = ring[ring.length - 1]?.op === 'Z';
    const drawn = ring.flatMap((segment) => (segment.op === 'Z' ? [] : [segment]));
    const last = drawn[drawn.length - 1];
    if (!last) return ring;
    const back: Path = [{ op: 'M', to: last.to }];
    for (let index = drawn.length - 1; index > 0; index -= 1) {
      const segment = drawn[index]!;
      const { to } = drawn[index - 1]!;
      back.push(segment.op === 'C' ? { op: 'C', c1: segment.c2, c2: segment.c1, to } : { op: 'L', to });
    }
    if (closed) back.push({ op: 'Z' });
    return back;
  });
}

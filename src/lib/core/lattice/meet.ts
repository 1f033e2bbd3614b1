import type { Box } from '../geom/box';
import { cross, dot, type Point } from '../geom/point';
import type { Lattice } from './repeat';

/** Touching counts as meeting; the slack keeps rounding from losing a neighbour that just touches. */
const SLACK = 1e-6;

/**
 * All offsets of the lattice at which `box`, moved there, meets the convex polygon `region` (touching counts).
 * They come in the plane's overlap order: row by row, then along the row, in the directions of the lattice's `front`,
 * the same for every place on the plane, so that a later offset lies on top of an earlier one wherever the two overlap.
 */
export function offsetsMeeting(lattice: Lattice, box: Box, region: readonly Point[]): Point[] {
  const { a, b } = lattice;
  const det = cross(a, b);
  if (!Number.isFinite(det) || det === 0 || region.length < 3) return [];
  const centre: Point = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  const limits = separatingLimits(box, region);
  const offsets: Point[] = [];
  const [firstRow, lastRow] = rowRange(lattice, centre, box, region);
  const { front } = lattice;
  for (const j of ordered(firstRow, lastRow, front.down === 'lower')) {
    const row: Point[] = [];
    const copies = front.down === 'lower' || lattice.oneRow ? lattice.copies : [...lattice.copies].reverse();
    for (const copy of copies) {
      const at = { x: centre.x + copy.x + b.x * j, y: centre.y + copy.y + b.y * j };
      const range = columnRange(limits, at, a);
      const columns: Point[] = [];
      for (const i of ordered(range[0], range[1], front.across === 'right')) {
        columns.push({ x: copy.x + a.x * i + b.x * j, y: copy.y + a.y * i + b.y * j });
      }
      row.push(...columns);
    }
    if (lattice.oneRow && lattice.copies.length > 1)
      row.sort((one, other) => (front.across === 'right' ? one.x - other.x : other.x - one.x));
    offsets.push(...row);
  }
  return offsets;
}

/** Whole numbers from `first` to `last`, or the other way round. */
function ordered(first: number, last: number, rising: boolean): number[] {
  const count = Math.max(0, last - first + 1);
  return Array.from({ length: count }, (_, index) => (rising ? first + index : last - index));
}

/** The corners of an upright box as a region for {@link offsetsMeeting}. */
export function regionOfBox(box: Box): Point[] {
  return [
    { x: box.x, y: box.y },
    { x: box.x + box.width, y: box.y },
    { x: box.x + box.width, y: box.y + box.height },
    { x: box.x, y: box.y + box.height },
  ];
}

type Limit = { axis: Point; low: number; high: number };

/** For each separating axis: where the box's centre may lie along it so that box and region are not apart. */
function separatingLimits(box: Box, region: readonly Point[]): Limit[] {
  const axes: Point[] = [
    { x: 1, y: 0 },
    { x: 0, y: 1 },
  ];
  region.forEach((from, index) => {
    const to = region[(index + 1) % region.length] ?? from;
    const edge = { x: from.y - to.y, y: to.x - from.x };
    const size = Math.hypot(edge.x, edge.y);
    if (size > 0) axes.push({ x: edge.x / size, y: edge.y / size });
  });
  return axes.map((axis) => {
    const along = region.map((point) => dot(point, axis));
    const reach = (Math.abs(axis.x) * box.width + Math.abs(axis.y) * box.height) / 2 + SLACK;
    return { axis, low: Math.min(...along) - reach, high: Math.max(...along) + reach };
  });
}

function columnRange(limits: readonly Limit[], at: Point, a: Point): [number, number] {
  let low = -Infinity;
  let high = Infinity;
  for (const limit of limits) {
    const start = dot(at, limit.axis);
    const step = dot(a, limit.axis);
    if (Math.abs(step) < 1e-12) {
      if (start < limit.low || start > limit.high) return [0, -1];
      continue;
    }
    const first = (limit.low - start) / step;
    const last = (limit.high - start) / step;
    low = Math.max(low, Math.min(first, last));
    high = Math.min(high, Math.max(first, last));
  }
  return [Math.ceil(low), Math.floor(high)];
}

/** The rows j that can hold a meeting offset, from the coordinate across rows: cross(a, p) / cross(a, b) = j. */
function rowRange(lattice: Lattice, centre: Point, box: Box, region: readonly Point[]): [number, number] {
  const { a, b } = lattice;
  const det = cross(a, b);
  const reach = (Math.abs(a.y) * box.width + Math.abs(a.x) * box.height) / 2;
  let low = Infinity;
  let high = -Infinity;
  for (const copy of lattice.copies) {
    for (const point of region) {
      const across = cross(a, { x: point.x - centre.x - copy.x, y: point.y - centre.y - copy.y });
      for (const end of [across - reach, across + reach]) {
        low = Math.min(low, end / det);
        high = Math.max(high, end / det);
      }
    }
  }
  return [Math.ceil(low - SLACK), Math.floor(high + SLACK)];
}

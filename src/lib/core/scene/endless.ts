import { pathBox, transformPath, type Path } from '../geom/path';
import { grow, type Box } from '../geom/box';
import { translation } from '../geom/affine';
import type { Point } from '../geom/point';
import { offsetsMeeting } from '../lattice/meet';
import { latticeShares, type Lattice } from '../lattice/repeat';
import type { Element } from './motif';

/**
 * A stroke that runs on without an end: its path leads from a point to the same point one lattice vector further.
 * Drawn in one piece over any region, it has no joint that could show.
 */
export type Endless = { element: Element; along: 'a' | 'b' };

/** One row of an endless stroke over a region, as a path in pattern space. */
export type EndlessRow = { element: Element; path: Path };

/**
 * The rows of all endless strokes that meet the convex region, in the order of drawing: row by row, and within a row
 * as they are listed, so that a band may be drawn under the next one's edge all over the plane.
 */
export function endlessOver(
  endless: readonly Endless[],
  lattice: Lattice,
  region: readonly Point[],
): EndlessRow[] {
  return (['a', 'b'] as const).flatMap((along) => rowsAlong(endless, lattice, region, along));
}

function rowsAlong(
  endless: readonly Endless[],
  lattice: Lattice,
  region: readonly Point[],
  along: 'a' | 'b',
): EndlessRow[] {
  const found: { row: number; order: number; laid: EndlessRow }[] = [];
  endless.forEach((line, order) => {
    if (line.along !== along) return;
    for (const [row, range] of rangesOf(line, lattice, region))
      found.push({ row, order, laid: { element: line.element, path: run(line, lattice, row, range) } });
  });
  return found.sort((one, other) => one.row - other.row || one.order - other.order).map(({ laid }) => laid);
}

type Range = { first: number; last: number };

/** The box of one period of an endless stroke, or `null` where it has no ink. */
export function boxOfEndless({ element: { path, stroke } }: Endless): Box | null {
  const box = pathBox(path);
  if (!box || !stroke) return null;
  const reach = (stroke.width / 2) * Math.max(1, stroke.join === 'miter' ? stroke.miterLimit : 1);
  return grow(box, reach);
}

function rangesOf(line: Endless, lattice: Lattice, region: readonly Point[]): Map<number, Range> {
  const box = boxOfEndless(line);
  const rows = new Map<number, Range>();
  if (!box) return rows;
  for (const offset of offsetsMeeting(lattice, box, region)) {
    const shares = latticeShares(lattice, offset);
    const [row, at] = line.along === 'a' ? [shares.y, shares.x] : [shares.x, shares.y];
    const key = Math.round(row);
    const place = Math.round(at);
    const held = rows.get(key);
    if (held) {
      held.first = Math.min(held.first, place);
      held.last = Math.max(held.last, place);
    } else rows.set(key, { first: place, last: place });
  }
  return rows;
}

/** One row in one piece, a period longer than needed at each end. */
function run(line: Endless, lattice: Lattice, row: number, { first, last }: Range): Path {
  const { path } = line.element;
  const [step, side] = line.along === 'a' ? [lattice.a, lattice.b] : [lattice.b, lattice.a];
  const at = (count: number): Point => ({
    x: step.x * count + side.x * row,
    y: step.y * count + side.y * row,
  });
  if (path.length === 2) {
    const [start] = path;
    if (start?.op !== 'M') return [];
    const [from, to] = [at(first - 1), at(last + 2)];
    return [
      { op: 'M', to: { x: start.to.x + from.x, y: start.to.y + from.y } },
      { op: 'L', to: { x: start.to.x + to.x, y: start.to.y + to.y } },
    ];
  }
  const whole: Path = [];
  for (let count = first - 1; count <= last + 1; count += 1) {
    const shift = at(count);
    const period = transformPath(translation(shift.x, shift.y), path);
    whole.push(...(whole.length === 0 ? period : period.slice(1)));
  }
  return whole;
}

import { grow, unionBoxes, type Box } from './box';
import type { InkedStroke } from './outline';
import { flatten, pathBox, type Path } from './path';
import type { Point } from './point';

/**
 * A box round all that a stroke inks along a path: half its width to every side, the tips of its mitred corners (SVG 2,
 * section 13.5: up to the miter limit), and the corners of square caps. Without an outline being made.
 */
export function strokeBox(path: Path, { width, cap, join, miterLimit }: InkedStroke): Box | null {
  const box = pathBox(path);
  if (!box) return null;
  const half = width / 2;
  const tips: Point[] = [];
  for (const { points, closed } of flatten(path, CURVE_STEPS)) {
    const line = points.filter((point, at) => at === 0 || apart(point, points[at - 1]!));
    if (closed && line.length > 1 && !apart(line[0]!, line[line.length - 1]!)) line.pop();
    const count = line.length;
    for (let at = 0; at < count && count > 1; at += 1) {
      const ends = !closed && (at === 0 || at === count - 1);
      const here = line[at]!;
      if (!ends && join === 'miter')
        tips.push(...tipOf(line[(at + count - 1) % count]!, here, line[(at + 1) % count]!, half, miterLimit));
      if (ends && cap === 'square') tips.push(...squareEnd(line[at === 0 ? 1 : at - 1]!, here, half));
    }
  }
  const beyond = tips.map(({ x, y }): Box => ({ x, y, width: 0, height: 0 }));
  return unionBoxes([grow(box, half), ...beyond]);
}

/** Corners of curves are found well enough: within a curve there are none. */
const CURVE_STEPS = 8;

const apart = (one: Point, other: Point): boolean => Math.hypot(one.x - other.x, one.y - other.y) > 1e-9;

const direction = (from: Point, to: Point): Point => {
  const length = Math.hypot(to.x - from.x, to.y - from.y);
  return { x: (to.x - from.x) / length, y: (to.y - from.y) / length };
};

/** The tip of a mitred corner; none where it is straight, or sharper than the limit lets be. */
function tipOf(before: Point, here: Point, after: Point, half: number, limit: number): Point[] {
  const [one, other] = [direction(before, here), direction(here, after)];
  const out = { x: one.x - other.x, y: one.y - other.y };
  const length = Math.hypot(out.x, out.y);
  if (length < 1e-6) return [];
  // |one − other| is twice the cosine of half the angle at the corner; the tip lies half / sine away.
  const sine = Math.sqrt(Math.max(0, 1 - (length / 2) ** 2));
  if (sine === 0 || 1 / sine > limit) return [];
  const reach = half / sine / length;
  return [{ x: here.x + out.x * reach, y: here.y + out.y * reach }];
}

function squareEnd(inner: Point, end: Point, half: number): Point[] {
  const { x, y } = direction(inner, end);
  return [1, -1].map((side) => ({
    x: end.x + (x - side * y) * half,
    y: end.y + (y + side * x) * half,
  }));
}

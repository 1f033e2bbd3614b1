import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { areaOf, combineAreas, type Area } from './boolean';
import { cutPath, halfPlaneBefore, beyond, sideOfBox, type HalfPlane } from './half-plane';
import { apply, rotation } from './affine';
import { flatten, formatPath, parsePath, type Path } from './path';
import type { Point } from './point';
import { polygonPath } from './shapes';

const path = (d: string): Path => {
  const read = parsePath(d);
  if (!read.ok) throw new Error(read.message);
  return read.path;
};
const LEFT: HalfPlane = { normal: { x: 1, y: 0 }, most: 0 };
const facing = (degrees: number, most: number): HalfPlane => ({
  normal: apply(rotation(degrees), { x: 1, y: 0 }),
  most,
});

/** The half-plane as a square so large that it stands for it. */
function square({ normal, most }: HalfPlane): Path {
  const at = (out: number, along: number) => ({
    x: normal.x * out - normal.y * along,
    y: normal.y * out + normal.x * along,
  });
  return polygonPath([at(most, -500), at(most, 500), at(-500, 500), at(-500, -500)]);
}

const rings = (of: Path): Point[][] => flatten(of, 64).map(({ points }) => points);

/** How often a path goes round a point: by the crossings of the ray to the right. */
function winding(of: Path, { x, y }: Point): number {
  let turns = 0;
  for (const points of rings(of))
    points.forEach((from, index) => {
      const to = points[(index + 1) % points.length]!;
      if (from.y > y === to.y > y) return;
      if (from.x + ((y - from.y) / (to.y - from.y)) * (to.x - from.x) > x) turns += to.y > from.y ? 1 : -1;
    });
  return turns;
}

/** How far a point lies from a path's outline, roughly: from the points it is flattened to and the middles between. */
const nearest = (of: Path, { x, y }: Point): number =>
  Math.min(
    ...rings(of).flatMap((points) =>
      points.map((from, index) => {
        const to = points[(index + 1) % points.length]!;
        const [dx, dy] = [to.x - from.x, to.y - from.y];
        const t = Math.max(
          0,
          Math.min(1, ((x - from.x) * dx + (y - from.y) * dy) / (dx * dx + dy * dy || 1)),
        );
        return Math.hypot(from.x + dx * t - x, from.y + dy * t - y);
      }),
    ),
  );

describe('a path cut at a line', () => {
  it('keeps half of a circle, with its curves', () => {
    const cut = cutPath(path('M-10 0A10 10 0 0 1 10 0A10 10 0 0 1 -10 0Z'), LEFT);
    expect(areaOf({ path: cut, rule: 'nonzero' })).toBeCloseTo((Math.PI * 100) / 2, 0);
    expect(cut.some(({ op }) => op === 'C')).toBe(true);
    expect(Math.max(...cut.flatMap((one) => (one.op === 'Z' ? [] : [one.to.x])))).toBeCloseTo(0, 9);
  });

  it('leaves the legs of an arch apart: nothing runs along the line between them', () => {
    const cut = cutPath(path('M-9 -9H9V9H-9V5H5V-5H-9Z'), { normal: { x: 1, y: 0 }, most: 2 });
    expect(cut.filter(({ op }) => op === 'M')).toHaveLength(2);
    expect(areaOf({ path: cut, rule: 'nonzero' })).toBeCloseTo(2 * 4 * 11, 6);
  });

  it('leaves what lies within as it is, and nothing of what lies beyond or only touches', () => {
    expect(formatPath(cutPath(path('M-9 -9H-1V9Z'), LEFT))).toBe('M-9 -9L-1 -9L-1 9L-9 -9Z');
    expect(cutPath(path('M1 -9H9V9Z'), LEFT)).toEqual([]);
    expect(cutPath(path('M0 -9H9V9H0Z'), LEFT)).toEqual([]);
  });

  it('winds as often about every point within as before, and about none beyond', () => {
    const number = fc.integer({ min: -40, max: 40 });
    const curve = fc.tuple(number, number, number, number, number, number);
    fc.assert(
      fc.property(
        fc.array(curve, { minLength: 2, maxLength: 6 }),
        fc.integer({ min: 0, max: 359 }),
        fc.integer({ min: -200, max: 200 }),
        fc.constantFrom('nonzero' as const, 'evenodd' as const),
        (curves, degrees, tenths, rule) => {
          const d = curves.map((one, at) => `${at === 2 ? 'ZM9 4' : ''}C${one.join(' ')}`).join('');
          const whole = path(`M0.5 0.25${d}Z`);
          const half = facing(degrees + 0.37, tenths / 10 + 0.013);
          const cut = cutPath(whole, half, rule);
          const filled = (turns: number): number => (rule === 'evenodd' ? Math.abs(turns % 2) : turns);
          for (let count = 0; count < 60; count += 1) {
            const point = { x: ((count * 37) % 83) - 41.4, y: ((count * 53) % 79) - 39.6 };
            if (nearest(whole, point) < 0.05 || Math.abs(beyond(half, point)) < 0.05) continue;
            expect(filled(winding(cut, point))).toBe(
              beyond(half, point) > 0 ? 0 : filled(winding(whole, point)),
            );
          }
        },
      ),
      { numRuns: 200, seed: 5 },
    );
  });

  // Held against the intersections of Paper.js (MIT).
  it.each([
    'M-20 0C-20 -30 5 -30 20 -12C34 6 10 40 -6 21C-16 10 -20 12 -20 0Z',
    'M-30 -20L30 -20L30 20L-30 20ZM-12 -9C2 -16 14 -6 10 4C6 14 -20 12 -12 -9Z',
  ])('has the area that another library finds: %s', (d) => {
    const whole: Area = { path: path(d), rule: 'evenodd' };
    for (const degrees of [0, 28, 77, 140, 203, 311])
      for (const most of [-7.3, 0.4, 9.1]) {
        const half = facing(degrees, most);
        const other = combineAreas('intersect', [whole, { path: square(half), rule: 'nonzero' }]);
        const found = areaOf({ path: cutPath(whole.path, half, 'evenodd'), rule: 'evenodd' });
        expect(other.ok && areaOf({ path: other.path, rule: 'evenodd' })).toBeCloseTo(found, 2);
      }
  });

  it('is told before a matrix where its line lies after it', () => {
    const matrix = { a: 2, b: 1, c: -1, d: 3, e: 7, f: -5 };
    const half = facing(31, 4);
    const before = halfPlaneBefore(half, matrix);
    for (const point of [
      { x: 3, y: 1 },
      { x: -2, y: 8 },
      { x: 1, y: -4 },
    ])
      expect(beyond(before, point) > 0).toBe(beyond(half, apply(matrix, point)) > 0);
    expect(sideOfBox(LEFT, { x: -5, y: 0, width: 5, height: 2 })).toBe('in');
    expect(sideOfBox(LEFT, { x: -4, y: 0, width: 5, height: 2 })).toBe('across');
    expect(sideOfBox(LEFT, { x: 0, y: 0, width: 5, height: 2 })).toBe('beyond');
  });
});

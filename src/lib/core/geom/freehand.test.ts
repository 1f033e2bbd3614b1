import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { thinned } from './freehand';
import type { Point } from './point';

const points = fc.array(
  fc.record({
    x: fc.double({ min: -50, max: 50, noNaN: true }),
    y: fc.double({ min: -50, max: 50, noNaN: true }),
  }),
  { minLength: 2, maxLength: 40 },
);
/** By trying many places along every stretch. */
const offLine = (point: Point, line: readonly Point[]): number =>
  Math.min(
    ...line.slice(1).flatMap((to, index) => {
      const from = line[index]!;
      return Array.from({ length: 201 }, (_, at) =>
        Math.hypot(
          from.x + ((to.x - from.x) * at) / 200 - point.x,
          from.y + ((to.y - from.y) * at) / 200 - point.y,
        ),
      );
    }),
  );

describe('a row of points made thinner', () => {
  it('keeps its ends and stays within the tolerance of every point that it lost', () => {
    fc.assert(
      fc.property(points, fc.double({ min: 0.1, max: 20, noNaN: true }), (row, tolerance) => {
        const kept = thinned(row, tolerance);
        expect([kept[0], kept[kept.length - 1]]).toEqual([row[0], row[row.length - 1]]);
        // The places that are tried lie up to 0.36 px from the nearest one.
        for (const point of row) expect(offLine(point, kept)).toBeLessThanOrEqual(tolerance + 0.36);
      }),
    );
  });

  it('drops what lies on a line, and nothing where it turns', () => {
    const row = [0, 1, 2, 3].map((x) => ({ x, y: 0 })).concat([1, 2, 3].map((y) => ({ x: 3, y })));
    expect(thinned(row, 0.01)).toEqual([
      { x: 0, y: 0 },
      { x: 3, y: 0 },
      { x: 3, y: 3 },
    ]);
  });
});

import { glyphPathData } from './glyphs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  apply,
  applyBox,
  compose,
  decompose,
  IDENTITY,
  invert,
  multiply,
  rotation,
  scaling,
  translation,
} from './affine';
import { boxesMeet } from './box';
import { convexMeetsBox, boxCorners, polygonArea } from './polygon';
import { flatten, formatPath, parsePath, pathBox, transformPath } from './path';
import { formPath } from './shapes';

const angle = fc.double({ min: -180, max: 180, noNaN: true });
const scale = fc.double({ min: 0.01, max: 50, noNaN: true });
const skew = fc.double({ min: -70, max: 70, noNaN: true });

describe('affine matrices', () => {
  it('turn clockwise on the screen, exactly at quarter turns', () => {
    expect(apply(rotation(90), { x: 1, y: 0 })).toEqual({ x: 0, y: 1 });
    expect(multiply(rotation(90), rotation(270))).toEqual(IDENTITY);
  });

  it('apply the right one first', () => {
    expect(apply(multiply(translation(10, 0), scaling(2)), { x: 3, y: 1 })).toEqual({ x: 16, y: 2 });
  });

  it('come apart into rotation, skew and scale and go together again', () => {
    fc.assert(
      fc.property(angle, skew, scale, scale, fc.boolean(), (turn, slant, scaleX, down, reflected) => {
        const matrix = compose({ rotation: turn, skew: slant, scaleX, scaleY: reflected ? -down : down });
        const parts = decompose(matrix);
        const again = compose(parts ?? { rotation: NaN, skew: NaN, scaleX: NaN, scaleY: NaN });
        for (const key of ['a', 'b', 'c', 'd'] as const) expect(again[key]).toBeCloseTo(matrix[key], 7);
      }),
    );
  });

  it('have an inverse, or say that they have none', () => {
    expect(invert(scaling(0, 1))).toBeNull();
    expect(decompose(scaling(0, 1))).toBeNull();
    fc.assert(
      fc.property(angle, scale, scale, (turn, scaleX, scaleY) => {
        const matrix = multiply(translation(7, -3), compose({ rotation: turn, skew: 20, scaleX, scaleY }));
        const inverse = invert(matrix);
        const point = apply(multiply(inverse ?? IDENTITY, matrix), { x: 5, y: -8 });
        expect(point.x).toBeCloseTo(5, 6);
        expect(point.y).toBeCloseTo(-8, 6);
      }),
    );
  });
});

describe('paths', () => {
  it('are read from every SVG command and written back', () => {
    const read = parsePath('m10 10h20v10l-5 5q5 5 10 0t10 0c1 1 2 2 3 0s2-2 3 0a5 5 0 0 1 10 0z');
    expect(read.ok).toBe(true);
    if (!read.ok) return;
    const again = parsePath(formatPath(read.path, 8));
    expect(again.ok && again.path.length).toBe(read.path.length);
    expect(new Set(read.path.map((segment) => segment.op))).toEqual(new Set(['M', 'L', 'C', 'Z']));
  });

  it('that cannot be read are refused', () => {
    expect(parsePath('M10 10 L').ok).toBe(false);
    expect(parsePath('hello').ok).toBe(false);
  });

  it('have an exact box: a circle of four curves touches it', () => {
    const box = pathBox(formPath({ kind: 'ellipse' }, 40, 30));
    expect(box).toEqual({ x: 0, y: 0, width: 40, height: 30 });
    const wave = parsePath('M0 0C0 40 30 -40 30 0');
    const waveBox = wave.ok ? pathBox(wave.path) : null;
    // Extremes of y(t) = 120·t(1−t)(1−2t): t = ½ ± 1/√12, ±120/(6√3).
    expect(waveBox?.height).toBeCloseTo((2 * 120) / (6 * Math.sqrt(3)), 9);
  });

  // Common practice, no source: a dot of 40 px in a 100 px unit covers π·20²/100² = 12.57 % of it.
  it('of a 40 px dot cover 12.57 % of a 100 px unit', () => {
    const [ring] = flatten(formPath({ kind: 'ellipse' }, 40, 40), 64);
    expect((100 * polygonArea(ring?.points ?? [])) / 100 ** 2).toBeCloseTo(12.57, 1);
  });

  it.each([
    { kind: 'polygon', sides: 5 } as const,
    { kind: 'star', points: 7, inner: 0.4 } as const,
    { kind: 'rectangle', radius: 12 } as const,
  ])('of a $kind fill their frame', (form) => {
    const box = pathBox(formPath(form, 120, 80));
    expect(box?.width).toBeCloseTo(120, 9);
    expect(box?.height).toBeCloseTo(80, 9);
    expect(box?.x).toBeCloseTo(0, 9);
  });

  it('move with a matrix as their points do', () => {
    const path = formPath({ kind: 'star', points: 5, inner: 0.5 }, 10, 10);
    const matrix = multiply(rotation(33), scaling(2, 3));
    const [first] = transformPath(matrix, path);
    const start = path[0];
    expect(first?.op !== 'Z' && first?.to).toEqual(
      start && start.op !== 'Z' ? apply(matrix, start.to) : null,
    );
  });
});

describe('boxes and convex polygons', () => {
  it('meet exactly when separating axes say so', () => {
    const diamond = boxCorners(multiply(translation(50, 50), rotation(45)), {
      x: -20,
      y: -20,
      width: 40,
      height: 40,
    });
    expect(convexMeetsBox(diamond, { x: 0, y: 0, width: 30, height: 30 })).toBe(false);
    expect(convexMeetsBox(diamond, { x: 0, y: 0, width: 37, height: 37 })).toBe(true);
    expect(
      boxesMeet(
        { x: 0, y: 0, width: 30, height: 30 },
        applyBox(IDENTITY, { x: 30, y: 0, width: 1, height: 1 }),
      ),
    ).toBe(true);
  });
});

it('outlines of letters are written with numbers that can be read, however small', () => {
  const d = glyphPathData([
    { type: 'M', x: 1.2345678, y: -1e-7 },
    { type: 'Q', x1: 3e-8, y1: 2, x: 5, y: 1e-9 },
    { type: 'Z' },
  ]);
  expect(d).toBe('M1.234568 0Q0 2 5 0Z');
});

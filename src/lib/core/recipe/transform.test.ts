import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { filledShape } from '../../../../tests/support/scenes';
import { about, apply, chain, determinant, invert, multiply, rotation, scaling, skewX } from '../geom/affine';
import { FRESH_CUT, type CutFrom } from './cut-out';
import {
  coveringPicture,
  fillMatrix,
  freshPlace,
  placeLinear,
  placeOfLinear,
  withCut,
  type FillPlace,
  type PatternFill,
  type PictureFill,
} from './fill';
import { frameCorners, freshShape, pagePatternMatrix, shapeCentre, type Shape } from './layout';
import { placedPpi, sharpnessOf } from './sharpness';
import {
  NO_TRANSFORM,
  anchorTo,
  continuing,
  mapBy,
  moveBy,
  reflectFill,
  sizeTo,
  transformMap,
  turnBy,
} from './transform';

const scale = fc.double({ min: 0.05, max: 8, noNaN: true });
const place = fc.record({
  scaleX: scale,
  scaleY: scale,
  reflectX: fc.boolean(),
  reflectY: fc.boolean(),
  rotation: fc.double({ min: -179.9, max: 179.9, noNaN: true }),
  skew: fc.double({ min: -70, max: 70, noNaN: true }),
});
const numbers = fc.record({
  moveX: fc.integer({ min: -90, max: 90 }),
  moveY: fc.integer({ min: -90, max: 90 }),
  scaleX: fc.double({ min: 0.2, max: 4, noNaN: true }),
  scaleY: fc.double({ min: 0.2, max: 4, noNaN: true }),
  rotation: fc.integer({ min: -180, max: 180 }),
  skew: fc.integer({ min: -40, max: 40 }),
  reflectX: fc.boolean(),
  reflectY: fc.boolean(),
});
const linear = (given: Partial<FillPlace>) => placeLinear({ ...freshPlace(), ...given });
const shapeWith = (over: Partial<PatternFill>): Shape => ({
  ...filledShape({ x: 40, y: 30, width: 200, height: 90 }, over),
  rotation: 25,
  skew: 10,
});
const fillOf = (shape: Shape): PatternFill => shape.fills[0] as PatternFill;
const onPage = (shape: Shape) => pagePatternMatrix(shape, fillOf(shape));

function close(one: object, other: object, digits = 5): void {
  for (const [key, value] of Object.entries(one))
    expect((other as Record<string, number>)[key]).toBeCloseTo(value as number, digits);
}

describe('the numbers of a fill', () => {
  it('are read back from their own map, reflection and skew included', () => {
    fc.assert(
      fc.property(place, (given) => {
        const read = placeOfLinear(linear(given), given);
        expect(read).toMatchObject({ reflectX: given.reflectX, reflectY: given.reflectY });
        close(linear(given), linear(read ?? {}), 9);
        expect(read?.rotation).toBeCloseTo(given.rotation, 6);
        expect(read?.skew).toBeCloseTo(given.skew, 6);
      }),
    );
  });

  it('describe the same map where the reflection had to change', () => {
    fc.assert(
      fc.property(place, (given) => {
        const mirrored = multiply(scaling(-1, 1), linear(given));
        const read = placeOfLinear(mirrored, given);
        close(mirrored, linear(read ?? {}), 9);
        expect(read?.reflectX === given.reflectX && read.reflectY === given.reflectY).toBe(false);
      }),
    );
    expect(placeOfLinear(scaling(0, 1), freshPlace())).toBeNull();
  });
});

describe('a map of the page', () => {
  it('takes pattern, shape or both through it and leaves the other where it lies', () => {
    fc.assert(
      fc.property(place, numbers, (given, typed) => {
        const shape = shapeWith(given);
        const map = transformMap({ ...NO_TRANSFORM, ...typed }, { x: 70, y: 20 });
        const pattern = mapBy(shape, 'pattern', map);
        expect({ ...pattern, fills: [] }).toEqual({ ...shape, fills: [] });
        close(chain(map, onPage(shape)), onPage(pattern));
        const moved = frameCorners(shape).map((corner) => apply(map, corner));
        for (const scope of ['shape', 'both'] as const) {
          const mapped = mapBy(shape, scope, map);
          frameCorners(mapped).forEach((corner, index) => close(moved[index] ?? {}, corner, 4));
          close(scope === 'both' ? chain(map, onPage(shape)) : onPage(shape), onPage(mapped));
        }
      }),
    );
  });

  it('that would flatten a shape leaves it as it is', () => {
    const shape = shapeWith({});
    expect(mapBy(shape, 'both', scaling(0, 1))).toBe(shape);
  });

  it('agrees with the plain moves, turns and sizes of handles', () => {
    const shape = { ...shapeWith({ rotation: 12 }), skew: 0 };
    for (const scope of ['shape', 'pattern', 'both'] as const) {
      const turn = mapBy(shape, scope, about(shapeCentre(shape), rotation(40)));
      const turned = turnBy(shape, scope, 40, shapeCentre(shape));
      close(onPage(turned), onPage(turn));
      frameCorners(turned).forEach((corner, index) => close(corner, frameCorners(turn)[index] ?? {}));
    }
    const sized = sizeTo(shape, 'both', { x: 40, y: 30, width: 400, height: 90 });
    expect(determinant(onPage(sized)) / determinant(onPage(shape))).toBeCloseTo(2, 9);
  });
});

describe('a subject cut out of a picture', () => {
  it('stays where it lay, turned, skewed and reflected, and again when it is cut anew', () => {
    const picture = { asset: 'a'.repeat(64), width: 300, height: 200 };
    const whole = {
      ...coveringPicture('f', picture, { width: 90, height: 80 }),
      ...{ rotation: 33, skew: 12, reflectY: true, scaleX: 0.4 },
      offset: { x: 4, y: -7 },
    };
    const from = (x: number, y: number): CutFrom => ({ ...picture, by: FRESH_CUT, x, y });
    const at = (fill: PictureFill, x: number, y: number) => apply(fillMatrix(fill), { x, y });
    const near = ({ x, y }: { x: number; y: number }) => ({
      x: expect.closeTo(x, 7),
      y: expect.closeTo(y, 7),
    });
    const made = { asset: 'b'.repeat(64), width: 60, height: 50 };
    const once = withCut(whole, made, from(120, 40));
    expect(at(once, 0, 0)).toEqual(near(at(whole, 120, 40)));
    expect(at(once, 60, 50)).toEqual(near(at(whole, 180, 90)));
    const twice = withCut(once, { ...made, width: 80 }, from(100, 35));
    expect(at(twice, 20, 5)).toEqual(near(at(whole, 120, 40)));
    expect(twice.offset).toEqual(whole.offset);
  });
});

describe('a fill anchored to the page', () => {
  it('stands still while its shape is moved, sized, turned, skewed or reflected', () => {
    fc.assert(
      fc.property(place, numbers, (given, typed) => {
        const shape = shapeWith({ ...given, anchored: 'page', offset: { x: 3, y: 4 } });
        const map = transformMap(typed, { x: 0, y: 0 });
        for (const changed of [
          moveBy(shape, 'shape', { x: 55, y: -20 }),
          sizeTo(shape, 'shape', { x: 0, y: 9, width: 77, height: 300 }),
          turnBy(shape, 'shape', 33, { x: 1, y: 2 }),
          mapBy(shape, 'shape', map),
        ])
          expect(fillOf(changed)).toEqual(fillOf(shape));
      }),
    );
  });

  it('is anchored and let go without a jump, and moves with both', () => {
    const shape = shapeWith({ offset: { x: 5, y: 6 }, rotation: 20 });
    const fill = anchorTo(shape, fillOf(shape), 'page');
    const there: Shape = { ...shape, fills: [fill] };
    close(onPage(shape), onPage(there), 9);
    expect(anchorTo(there, fill, 'shape')).toEqual(fillOf(shape));
    const moved = moveBy(there, 'both', { x: 10, y: 0 });
    expect(onPage(moved).e - onPage(there).e).toBeCloseTo(10, 9);
  });

  it('continues the pattern of a neighbour: both show one plane', () => {
    const left = shapeWith({
      scaleX: 0.5,
      scaleY: 0.5,
      rotation: 30,
      reflectX: true,
      offset: { x: 8, y: 1 },
    });
    const right: Shape = { ...shapeWith({}), x: 240 };
    const joined: Shape = { ...right, fills: [continuing(fillOf(right), fillOf(left), left)] };
    close(onPage(left), onPage(joined), 9);
  });
});

it('a fill reflected along its own axis keeps its other numbers and the plane under the shape’s middle', () => {
  fc.assert(
    fc.property(place, fc.constantFrom('across' as const, 'down' as const), (given, along) => {
      const shape = shapeWith(given);
      const fill = fillOf(shape);
      const mirrored = reflectFill(shape, fill, along);
      expect(mirrored.reflectX !== fill.reflectX).toBe(along === 'across');
      expect(mirrored.reflectY !== fill.reflectY).toBe(along === 'down');
      close({ rotation: fill.rotation, skew: fill.skew, scaleX: fill.scaleX, scaleY: fill.scaleY }, mirrored);
      const middle = shapeCentre(shape);
      const under = (one: PatternFill) => apply(invert(pagePatternMatrix(shape, one))!, middle);
      close(under(fill), under(mirrored), 4);
      close(pagePatternMatrix(shape, fill), pagePatternMatrix(shape, reflectFill(shape, mirrored, along)));
    }),
  );
});

it('a skewed and reflected shape has its corners where the map says', () => {
  const shape = freshShape({
    id: 's',
    name: 'S',
    form: { kind: 'ellipse' },
    x: 0,
    y: 0,
    width: 20,
    height: 10,
    skew: 45,
    reflectX: true,
  });
  const map = about({ x: 10, y: 5 }, chain(skewX(45), scaling(-1, 1)));
  const [first] = frameCorners(shape);
  close(apply(map, { x: 0, y: 0 }), first ?? {}, 9);
  expect(first?.x).toBeCloseTo(15, 9);
});

// CSS Values: an inch is 96 px. Common practice, no source: 300 ppi for print.
it('a 2000 px picture across 12 in has 166.7 ppi', () => {
  const scaleX = (12 * 96) / 2000;
  expect(placedPpi({ scaleX, scaleY: scaleX })).toBeCloseTo(166.667, 2);
  expect(placedPpi({ scaleX, scaleY: scaleX / 2 })).toBeCloseTo(166.667, 2);
  expect([301, 299, 149].map(sharpnessOf)).toEqual(['full', 'fair', 'coarse']);
});

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { apply } from '../geom/affine';
import { LIMITS } from './limits';
import { freshShape, type Shape } from './layout';
import { FRAME_HANDLES, frameByHandle, handlePoint, skewByHandle, type FrameHandle } from './sizing';
import { mapBy, sizeTo, withinLimits } from './transform';

const ellipse = (numbers: Partial<Shape> & { width: number; height: number }): Shape =>
  freshShape({ id: 's', name: 'S', form: { kind: 'ellipse' }, x: 0, y: 0, ...numbers });
const shapes = fc
  .record({
    width: fc.double({ min: 10, max: 400, noNaN: true }),
    height: fc.double({ min: 10, max: 400, noNaN: true }),
    rotation: fc.double({ min: -180, max: 180, noNaN: true }),
    skew: fc.double({ min: -40, max: 40, noNaN: true }),
    reflectX: fc.boolean(),
  })
  .map((numbers) => ellipse({ x: 30, y: -20, ...numbers }));
const handles = fc.constantFrom(...FRAME_HANDLES);
const pulls = fc.record({
  x: fc.double({ min: -60, max: 60, noNaN: true }),
  y: fc.double({ min: -60, max: 60, noNaN: true }),
});
const opposite = ({ across, down }: FrameHandle): FrameHandle =>
  ({ across: across === 0 ? 0 : -across, down: down === 0 ? 0 : -down }) as FrameHandle;
const near = (one: { x: number; y: number }, other: { x: number; y: number }): void => {
  expect(one.x).toBeCloseTo(other.x, 5);
  expect(one.y).toBeCloseTo(other.y, 5);
};

describe('a frame pulled by a handle', () => {
  it('keeps the opposite handle where it is, however the shape is turned, skewed and reflected', () => {
    fc.assert(
      fc.property(shapes, handles, pulls, fc.boolean(), (shape, handle, by, proportional) => {
        const from = handlePoint(shape, handle);
        const frame = frameByHandle(
          shape,
          handle,
          { x: from.x + by.x, y: from.y + by.y },
          {
            proportional,
            centred: false,
          },
        );
        const sized = sizeTo(shape, 'shape', frame);
        // A side that is pulled in proportion grows about its own line.
        if (proportional && (handle.across === 0 || handle.down === 0)) return;
        near(handlePoint(sized, opposite(handle)), handlePoint(shape, opposite(handle)));
      }),
    );
  });

  it('never turns over and stays within the least side', () => {
    const shape = ellipse({ width: 40, height: 40 });
    const frame = frameByHandle(
      shape,
      { across: 1, down: 1 },
      { x: -500, y: -500 },
      {
        proportional: false,
        centred: false,
      },
    );
    expect(frame.width).toBe(LIMITS.shapeSide.least);
    near(frame, { x: 0, y: 0 });
  });
});

describe('a side pulled along itself', () => {
  it('slants the shape: the side follows the pointer, the opposite one stays', () => {
    fc.assert(
      fc.property(shapes, handles, pulls, (shape, handle, by) => {
        const map = skewByHandle(shape, handle, by);
        expect(map === null).toBe(handle.across !== 0 && handle.down !== 0);
        if (!map) return;
        near(apply(map, handlePoint(shape, opposite(handle))), handlePoint(shape, opposite(handle)));
        const slanted = mapBy(shape, 'shape', map);
        if (!withinLimits(slanted)) return;
        // The middle of the side lies where the map takes it.
        near(apply(map, handlePoint(shape, handle)), handlePoint(slanted, handle));
      }),
    );
  });

  it('by as much as it was pulled, where the shape is upright', () => {
    const shape = ellipse({ width: 100, height: 50 });
    const map = skewByHandle(shape, { across: 0, down: 1 }, { x: 50, y: 99 });
    // 50 px over a height of 50 px: tan 45°. What is pulled across the side does not count.
    expect(map && mapBy(shape, 'shape', map)).toMatchObject({
      skew: 45,
      width: 100,
      height: 50,
      rotation: 0,
    });
  });
});

import { describe, expect, it } from 'vitest';
import { apply } from '../geom/affine';
import { freshMask, layMask, maskPlace } from './mask';

describe('a mask that lies by a matrix', () => {
  const centre = { x: 50, y: 30 };

  it('is scaled and turned about the middle, which stays', () => {
    const laid = layMask(freshMask(), { scale: 2, turn: 90 }, centre);
    const middle = apply(laid.matrix, centre);
    expect(middle.x).toBeCloseTo(50, 9);
    expect(middle.y).toBeCloseTo(30, 9);
    expect(maskPlace(laid)).toMatchObject({ scale: expect.closeTo(2, 9), turn: expect.closeTo(90, 9) });
  });

  it('is moved without another scale or turn, and comes back', () => {
    const turned = layMask(freshMask(), { scale: 0.5, turn: -30 }, centre);
    const { x, y } = maskPlace(turned);
    const moved = layMask(turned, { x: x + 12, y: y - 7 }, centre);
    expect(maskPlace(moved)).toEqual({ ...maskPlace(turned), x: x + 12, y: y - 7 });
    const back = layMask(moved, { x, y }, centre);
    for (const key of ['a', 'b', 'c', 'd', 'e', 'f'] as const)
      expect(back.matrix[key]).toBeCloseTo(turned.matrix[key], 9);
  });
});

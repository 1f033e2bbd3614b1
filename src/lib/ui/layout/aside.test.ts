import { describe, expect, it } from 'vitest';
import type { Box } from '$lib/core/geom/box';
import { besides, liesRound } from './aside';

const STAGE = { width: 1000, height: 500 };
const RADIUS = 39;

/** How much of the dial's square lies over a box, px of its nearest side. */
function over(box: { x: number; y: number; width: number; height: number }): number {
  const { x, y } = besides(box, STAGE, RADIUS);
  const across = Math.min(x + RADIUS, box.x + box.width) - Math.max(x - RADIUS, box.x);
  const down = Math.min(y + RADIUS, box.y + box.height) - Math.max(y - RADIUS, box.y);
  return Math.min(across, down);
}

describe('a dial beside a shape', () => {
  it('lies beside it and in sight wherever the shape leaves room for it', () => {
    let random = 7;
    const next = (): number => (random = (random * 16807) % 2147483647) / 2147483647;
    for (let count = 0; count < 500; count += 1) {
      const [width, height] = [20 + next() * 600, 20 + next() * 300];
      const box = { x: next() * (1000 - width), y: next() * (500 - height), width, height };
      const { x, y } = besides(box, STAGE, RADIUS);
      expect(x - RADIUS).toBeGreaterThanOrEqual(0);
      expect(x + RADIUS).toBeLessThanOrEqual(1000);
      expect(y - RADIUS).toBeGreaterThanOrEqual(52);
      expect(y + RADIUS).toBeLessThanOrEqual(500);
      expect(over(box)).toBeLessThan(0);
    }
  });

  it('stands at the right first, else left, below or above, and in the corner where there is no room', () => {
    const at = (x: number, y: number, width: number, height: number) =>
      besides({ x, y, width, height }, STAGE, RADIUS);
    expect(at(400, 200, 100, 100)).toEqual({ x: 571, y: 250 });
    expect(at(600, 200, 390, 100)).toEqual({ x: 529, y: 250 });
    expect(at(20, 60, 960, 200)).toEqual({ x: 500, y: 331 });
    expect(at(20, 300, 960, 190)).toEqual({ x: 500, y: 229 });
    expect(at(-200, -200, 1400, 900)).toEqual({ x: 45, y: 455 });
  });

  it('covers as little of its neighbours as it can, and takes another side only for that', () => {
    const box = { x: 400, y: 200, width: 100, height: 100 };
    const [right, left, below] = [
      { x: 520, y: 150, width: 200, height: 200 },
      { x: 250, y: 150, width: 140, height: 200 },
      { x: 380, y: 320, width: 140, height: 100 },
    ];
    const stands = (...others: Box[]) => besides(box, STAGE, RADIUS, others);
    expect(stands(right)).toEqual({ x: 329, y: 250 });
    expect(stands(right, left)).toEqual({ x: 450, y: 371 });
    expect(stands(right, left, below)).toEqual({ x: 450, y: 129 });
    expect(stands({ x: 608, y: 200, width: 100, height: 100 })).toEqual({ x: 571, y: 250 });
    expect(liesRound({ x: 0, y: 0, width: 900, height: 400 }, box)).toBe(true);
    expect(liesRound(right, box)).toBe(false);
  });
});

import { describe, expect, it } from 'vitest';
import type { Raster } from './composite';
import { coveredShare, whiteShare } from './coverage';
import { judgeJoins } from './join';

/** A grey picture from a function of the place. */
function picture(width: number, height: number, grey: (x: number, y: number) => number, alpha = 255): Raster {
  const data = new Uint8Array(width * height * 4);
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1) {
      const at = (y * width + x) * 4;
      data.fill(grey(x, y), at, at + 3);
      data[at + 3] = alpha;
    }
  return { width, height, data };
}

describe('a look at a repeating picture', () => {
  it('finds the join of a slope that does not come back, and only that one', () => {
    const slope = judgeJoins(picture(64, 64, (x) => x * 3));
    expect([slope.across.visible, slope.down.visible]).toEqual([true, false]);
  });

  it('finds none in a wave that comes back, nor in noise', () => {
    const wave = judgeJoins(picture(64, 64, (x, y) => 128 + 60 * Math.sin((2 * Math.PI * (x + 2 * y)) / 64)));
    expect([wave.across.visible, wave.down.visible]).toEqual([false, false]);
    const noise = judgeJoins(picture(64, 64, (x, y) => ((x * 73 + y * 151) * 2654435761) % 256));
    expect([noise.across.visible, noise.down.visible]).toEqual([false, false]);
  });

  it('does not take art that ends at the edge in one place for a join', () => {
    const piece = judgeJoins(picture(64, 64, (x, y) => (y >= 50 && x > 20 && x < 34 ? 0 : 255)));
    expect(piece.down.visible).toBe(false);
  });

  it('counts what is covered, by alpha and by one colour', () => {
    expect(coveredShare(picture(4, 4, () => 0, 51))).toBeCloseTo(0.2, 9);
    expect(whiteShare(picture(4, 4, (x) => (x < 1 ? 255 : 0)))).toBeCloseTo(0.25, 9);
  });
});

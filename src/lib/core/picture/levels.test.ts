import { describe, expect, it } from 'vitest';
import { pixelOf, rasterOf, texture } from '../../../../tests/support/rasters';
import { freshPictured } from '../recipe/pictured';
import { Levels } from './levels';
import { makeUnit } from './make';

describe('a picture in halves', () => {
  const picture = rasterOf(101, 66, (x, y) => [x, y, x + y]);
  const levels = new Levels({ picture, scale: 0.5 });

  it('is the whole where a pixel of it is seen, and the smallest that has one for each that is made', () => {
    expect(levels.for(1)).toBe(levels.whole);
    expect(levels.for(0.3)).toBe(levels.whole);
    expect(levels.for(0.25)).toMatchObject({ scale: 0.25, picture: { width: 50, height: 33 } });
    expect(levels.for(0.2).scale).toBe(0.25);
    // Once made it is kept, and it is not halved for ever.
    expect(levels.for(0.2)).toBe(levels.for(0.25));
    expect(levels.for(1e-6).picture.height).toBeGreaterThanOrEqual(16);
  });

  it('is the mean of four pixels, at the same place', () => {
    const { picture: half } = levels.for(0.25);
    expect(pixelOf(half, 7, 5)).toEqual([15, 11, 25, 255]);
  });

  it('shows the same unit, its light as that of all of it', () => {
    const photo = texture(640, 512, 5);
    const source = { asset: '', width: 640, height: 512, name: '' };
    const fresh = freshPictured(source);
    const pictured = {
      ...fresh,
      region: { x: 320, y: 256, width: 480, height: 384, turn: 0 },
      join: { ...fresh.join, on: false },
    };
    const whole = { picture: photo, scale: 1 };
    const seen = makeUnit(new Levels(whole).for(0.125), pictured, { kind: 'straight' }, 0.125);
    const full = makeUnit(whole, pictured, { kind: 'straight' });
    let worst = 0;
    for (let y = 4; y < 44; y += 1)
      for (let x = 4; x < 56; x += 1) {
        let mean = 0;
        for (let at = 0; at < 64; at += 1)
          mean += pixelOf(full, 8 * x + (at % 8), 8 * y + (at >> 3))[0]! / 64;
        worst = Math.max(worst, Math.abs(pixelOf(seen, x, y)[0]! - mean));
      }
    expect(worst).toBeLessThan(3);
  });
});

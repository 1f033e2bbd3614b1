import { describe, expect, it } from 'vitest';
import { noisePicture, pixelOf, rasterOf, texture } from '../../../../tests/support/rasters';
import { ownPeriod } from './period';

/** Courses in bond with grain over them: each second one is shifted by half a brick. */
function courses(long: number, high: number, grain: number) {
  const noise = noisePicture(420, 330, 4, grain);
  return rasterOf(420, 330, (x, y) => {
    const course = Math.floor(y / high);
    const along = (x + (course % 2) * (long / 2)) % long;
    const joint = y % high < 5 || along < 5;
    const light = (joint ? 190 : 110) + (x / 420) * 60;
    return pixelOf(noise, x, y)
      .slice(0, 3)
      .map((value) => light + value - 128);
  });
}

describe('the period of a picture', () => {
  it.each([
    [84, 30, 10],
    [60, 24, 40],
    [101, 33, 25],
  ])(
    'of courses of %i × %i px is a brick across and two courses down, under grain of %i',
    (long, high, grain) => {
      const { across, down } = ownPeriod(courses(long, high, grain));
      expect(Math.abs(across!.length - long)).toBeLessThan(0.7);
      expect(Math.abs(down!.length - 2 * high)).toBeLessThan(0.7);
    },
  );

  it('of a unit that was laid often is the unit, and not a multiple of it', () => {
    const unit = texture(57, 41, 3, { light: 0, seamless: true });
    const laid = rasterOf(400, 300, (x, y) => pixelOf(unit, x % 57, y % 41));
    const { across, down } = ownPeriod(laid);
    expect(across!.length).toBeCloseTo(57, 1);
    expect(down!.length).toBeCloseTo(41, 1);
    expect(Math.min(across!.alike, down!.alike)).toBeGreaterThan(0.9);
  });

  it('is none where nothing repeats: grain, a texture, one colour, a slope', () => {
    for (const picture of [
      noisePicture(300, 200, 5),
      texture(300, 200, 6),
      rasterOf(200, 200, () => [90]),
      rasterOf(200, 200, (x) => [x]),
    ])
      expect(ownPeriod(picture)).toEqual({ across: null, down: null });
  });
});

import { describe, expect, it } from 'vitest';
import { pixelOf, rasterOf, texture } from '../../../../tests/support/rasters';
import { grow } from './grow';
import type { Raster } from '../raster/composite';
import { IDENTITY } from '../geom/affine';
import { cellOfUnit, repeatFigure, sensitivity, type RepeatFigure } from './repeat';
import { seamsOf } from './seam';

const STRAIGHT = { kind: 'straight' } as const;
const seenFrom = (picture: Raster, size: { width: number; height: number }, distance: number): RepeatFigure =>
  repeatFigure({ picture, size, matrix: IDENTITY }, distance);

describe('a grown unit', () => {
  const source = texture(96, 80, 3, { light: 0 });
  const grown = grow(source, 2, 7);

  it('is so much larger, made of the texture alone, and the same for the same seed', () => {
    expect([grown.width, grown.height]).toEqual([192, 160]);
    expect(grow(source, 2, 7).data).toEqual(grown.data);
    expect(grow(source, 2, 8).data).not.toEqual(grown.data);
    // Most of its pixels, the cuts aside, stand in a row with their right neighbour somewhere in the texture.
    const pairs = new Set<string>();
    for (let y = 0; y < 80; y += 1)
      for (let x = 0; x < 95; x += 1)
        pairs.add(`${pixelOf(source, x, y).join()} ${pixelOf(source, x + 1, y).join()}`);
    let known = 0;
    for (let y = 0; y < 160; y += 1)
      for (let x = 0; x < 191; x += 1)
        if (pairs.has(`${pixelOf(grown, x, y).join()} ${pixelOf(grown, x + 1, y).join()}`)) known += 1;
    expect(known / (160 * 191)).toBeGreaterThan(0.8);
  });

  it('closes on itself: no seam is plainer than within it', () => {
    const large = texture(200, 180, 4, { light: 0 });
    expect(seamsOf(large, STRAIGHT).word).not.toBe('none');
    expect(seamsOf(grow(large, 2, 7), STRAIGHT).word).toBe('none');
  });

  it('is harder to find as a unit: one blob of the texture tells less', () => {
    const blob = rasterOf(96, 80, (x, y) => {
      const [r, g, b] = pixelOf(source, x, y) as [number, number, number];
      const dark = Math.hypot(x - 30, y - 44) < 11 ? 0.55 : 1;
      return [r * dark, g * dark, b * dark];
    });
    const size = { width: 60, height: 50 };
    const before = seenFrom(blob, size, 2000).figure;
    const after = seenFrom(grow(blob, 2, 5), { width: 120, height: 100 }, 2000).figure;
    expect(after).toBeLessThan(before);
  });
});

describe('the repeat meter', () => {
  const size = { width: 80, height: 80 };

  it('weighs by the published sensitivity of the eye: most near 8 cycles a degree, hardly anything at 60', () => {
    // Mannos and Sakrison 1974: the peak lies near 8 cycles a degree.
    const cycles = Array.from({ length: 600 }, (_, at) => at / 10);
    const peak = cycles.reduce((best, one) => (sensitivity(one) > sensitivity(best) ? one : best));
    expect(peak).toBeGreaterThan(7);
    expect(peak).toBeLessThan(9);
    expect(sensitivity(peak)).toBeCloseTo(0.98, 1);
    expect(sensitivity(60)).toBeLessThan(0.01);
  });

  it('is the amplitude of a wave of the unit times the sensitivity at its frequency', () => {
    const wave = rasterOf(64, 64, (x) => [128 + 30 * Math.cos((2 * Math.PI * x) / 64)]);
    const { figure } = seenFrom(wave, size, 2000);
    // One cycle of 80 mm at 2 m is 2000·π/180 / 80 = 0.436 cycles a degree; a wave is two orders of half its amplitude.
    const light = (value: number): number => {
      const linear = ((value / 255 + 0.055) / 1.055) ** 2.4;
      return 116 * Math.cbrt(linear) - 16;
    };
    const amplitude = (light(158) - light(98)) / 2;
    expect(figure).toBeCloseTo((amplitude / Math.SQRT2) * sensitivity(0.4363), 1);
  });

  it.each([
    { kind: 'half-drop' as const, step: 0.5 },
    { kind: 'brick' as const, step: 0.25 },
  ])('goes by the waves of the plane, however its units lie: $kind', (lay) => {
    // One wave that runs on from unit to unit as they lie, worked by hand: across and down it has so many cycles a unit.
    const [across, down] = lay.kind === 'half-drop' ? [-lay.step, 1] : [1, -lay.step];
    const wave = (x: number, y: number): number =>
      Math.cos(2 * Math.PI * ((across * (x + 0.5)) / 64 + (down * (y + 0.5)) / 48));
    const unit = rasterOf(64, 48, (x, y) => [128 + 30 * wave(x, y)]);
    const seen = { width: 80, height: 120 };
    const { figure } = repeatFigure(cellOfUnit(unit, seen, lay), 4000);
    const straight = seenFrom(
      rasterOf(64, 48, (x) => [128 + 30 * Math.cos((2 * Math.PI * (x + 0.5)) / 64)]),
      { width: 17.4533, height: 80 },
      1000,
    );
    // A degree at 1000 is 17.4533 wide: one cycle of it.
    const cycles = (Math.hypot(across / seen.width, down / seen.height) * 4000 * Math.PI) / 180;
    expect(figure).toBeCloseTo((straight.figure * sensitivity(cycles)) / sensitivity(1), 1);
  });

  it('finds the place that tells the unit where units lie further along', () => {
    const unit = rasterOf(64, 48, (x, y) => [Math.hypot(x - 40, y - 20) < 9 ? 40 : 190]);
    const { blob } = repeatFigure(
      cellOfUnit(unit, { width: 640, height: 480 }, { kind: 'brick', step: 0.25 }),
      6000,
    );
    expect(blob?.is).toBe('dark');
    expect([Math.abs(blob!.x - 405) < 25, Math.abs(blob!.y - 205) < 25]).toEqual([true, true]);
  });

  it('finds nothing in one colour, and less from so far that the unit melts into a grey', () => {
    const flat = seenFrom(
      rasterOf(40, 40, () => [120]),
      size,
      2000,
    );
    expect([flat.figure < 1e-9, flat.word, flat.blob]).toEqual([true, 'none', null]);
    const dot = rasterOf(64, 64, (x, y) => [Math.hypot(x - 32, y - 32) < 14 ? 40 : 200]);
    const from = (distance: number): number => seenFrom(dot, size, distance).figure;
    expect(from(500)).toBeGreaterThan(0);
    expect(from(200_000)).toBeLessThan(from(10_000) / 4);
    expect(seenFrom(dot, size, 5000).word).toBe('plain');
  });

  it('says what tells the unit most: where it lies, over an edge too, how it lies, and whether it is dark', () => {
    // A dark bar of 28 × 10 px, turned by 30°, about the left edge of a unit of 64 px and 80 mm.
    const [cos, sin] = [Math.cos(Math.PI / 6), Math.sin(Math.PI / 6)];
    const bar = rasterOf(64, 64, (x, y) => {
      const [dx, dy] = [x + 0.5 > 32 ? x + 0.5 - 64 : x + 0.5, y + 0.5 - 24];
      const [along, aside] = [dx * cos + dy * sin, dy * cos - dx * sin];
      return [Math.abs(along) < 14 && Math.abs(aside) < 5 ? 40 : 180];
    });
    const { blob } = seenFrom(bar, size, 1000);
    expect(blob?.is).toBe('dark');
    const across = blob!.x > 40 ? blob!.x - 80 : blob!.x;
    expect(Math.abs(across)).toBeLessThan(2.5);
    expect(Math.abs(blob!.y - 30)).toBeLessThan(2.5);
    expect(Math.abs(blob!.turn - 30)).toBeLessThan(6);
    expect(blob!.rx).toBeGreaterThan(1.3 * blob!.ry);
    const light = seenFrom(
      rasterOf(64, 64, (x, y) => [Math.hypot(x - 20, y - 40) < 10 ? 220 : 90]),
      size,
      1000,
    );
    expect(light.blob).toMatchObject({
      is: 'light',
      x: expect.closeTo(25.4, -0.5),
      y: expect.closeTo(50.4, -0.5),
    });
  });
});

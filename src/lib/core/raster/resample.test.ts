import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { noisePicture, pixelOf, rasterOf, texture } from '../../../../tests/support/rasters';
import type { Raster } from './composite';
import { LANCZOS, MITCHELL, resample } from './resample';

describe('another size', () => {
  // Against libvips, which shrinks with the same kernel: by boxes first where more than half goes, so not that far here.
  // It enlarges with another one.
  it.each([
    ['lanczos3', 70, 61],
    ['lanczos3', 95, 77],
    ['lanczos3', 54, 44],
    ['mitchell', 70, 61],
    ['mitchell', 54, 44],
  ] as const)('by %s is what libvips makes of it: 100 × 80 to %i × %i', async (kernel, width, height) => {
    const source = texture(100, 80, 4);
    const raw = { width: 100, height: 80, channels: 4 as const };
    const theirs = await sharp(Buffer.from(source.data), { raw })
      .resize(width, height, { fit: 'fill', kernel })
      .raw()
      .toBuffer();
    const ours = resample(source, width, height, 'clamp', kernel === 'mitchell' ? MITCHELL : LANCZOS);
    let worst = 0;
    for (let y = 3; y < height - 3; y += 1)
      for (let x = 3; x < width - 3; x += 1)
        for (let channel = 0; channel < 3; channel += 1) {
          const at = (y * width + x) * 4 + channel;
          worst = Math.max(worst, Math.abs(ours.data[at]! - theirs[at]!));
        }
    // Its weights have few bits.
    expect(worst).toBeLessThanOrEqual(3);
  });

  it('weighs by the numbers of the paper: 8/9 in the middle, 1/18 a pixel away, none from two on', () => {
    // Mitchell and Netravali 1988, eq. 8 with B = C = 1/3, worked by hand.
    expect([0, 1, 1.5, 2, 2.5].map((far) => Number(MITCHELL.weight(far).toFixed(6)))).toEqual([
      0.888889, 0.055556, -0.034722, 0, 0,
    ]);
  });

  it.each([0, 17, -5])(
    'of pictures each row of which lies %i px further along is a part of that plane',
    (along) => {
      const unit = texture(48, 36, 7, { light: 0 });
      const shifted = (y: number): number => Math.floor(y / 36) * along;
      const at = (x: number, y: number): number[] =>
        pixelOf(unit, (((x - shifted(y)) % 48) + 48) % 48, ((y % 36) + 36) % 36);
      const laid = rasterOf(144, 108, (x, y) => at(x - 48, y - 36));
      for (const factor of [0.5, 1.5]) {
        const [width, height] = [48 * factor, 36 * factor];
        const own = resample(unit, width, height, { along });
        const wide = resample(laid, 3 * width, 3 * height);
        let worst = 0;
        for (let y = 0; y < height; y += 1)
          for (let x = 0; x < width; x += 1)
            for (let channel = 0; channel < 3; channel += 1)
              worst = Math.max(
                worst,
                Math.abs(pixelOf(own, x, y)[channel]! - pixelOf(wide, x + width, y + height)[channel]!),
              );
        expect(worst).toBeLessThanOrEqual(1);
      }
    },
  );

  it('of the same size is the same, and of one colour of that colour', () => {
    const noise = noisePicture(31, 22, 3);
    expect(resample(noise, 31, 22, 'wrap').data).toEqual(noise.data);
    expect(
      new Set(
        resample(
          rasterOf(40, 30, () => [77]),
          13,
          57,
        ).data,
      ),
    ).toEqual(new Set([77, 255]));
  });

  it('of a picture that repeats is a part of the repeat: what lies beyond its edges is the picture again', () => {
    const unit = texture(60, 40, 7, { light: 0, seamless: true });
    const laid = rasterOf(180, 120, (x, y) => pixelOf(unit, x % 60, y % 40));
    const small = resample(unit, 21, 14, 'wrap');
    const wide = resample(laid, 63, 42);
    const part = (x: number, y: number): number[] => pixelOf(wide as Raster, x + 21, y + 14);
    for (let y = 0; y < 14; y += 1)
      for (let x = 0; x < 21; x += 1)
        for (let channel = 0; channel < 3; channel += 1)
          expect(Math.abs(pixelOf(small, x, y)[channel]! - part(x, y)[channel]!)).toBeLessThanOrEqual(1);
  });

  it('has no wave left that is finer than its pixels', () => {
    const fine = rasterOf(120, 8, (x) => [128 + 100 * Math.cos((2 * Math.PI * x) / 2.6)]);
    const small = resample(fine, 40, 8, 'wrap');
    const values = Array.from({ length: 40 }, (_, x) => pixelOf(small, x, 4)[0]!);
    expect(Math.max(...values) - Math.min(...values)).toBeLessThan(14);
  });
});

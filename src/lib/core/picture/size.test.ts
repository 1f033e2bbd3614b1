import { describe, expect, it } from 'vitest';
import { noisePicture, pixelOf, rasterOf, texture } from '../../../../tests/support/rasters';
import { modulo } from '../num/tolerance';
import type { Raster } from '../raster/composite';
import { resample } from '../raster/resample';
import { checkRecipe } from '../recipe/check';
import { madeAsset, madeSize, ownSize } from '../recipe/made';
import { freshPictured, type Pictured, type PictureLay } from '../recipe/pictured';
import { resized } from './size';

const source = { asset: 'a'.repeat(64), width: 200, height: 160, name: 'photo' };
const STRAIGHT: PictureLay = { kind: 'straight' };
const steps = (over: Partial<Pictured>): Pictured => ({ ...freshPictured(source), ...over });
const size = (width: number, filter: 'lanczos' | 'mitchell' = 'lanczos') => ({ on: true, width, filter });
const whole = { x: 100, y: 80, width: 200, height: 160, turn: 0 };

describe('the size of a repeat', () => {
  it('is so many px across, in its proportion; switched off, those that it has', () => {
    const pictured = steps({ region: whole, size: size(300) });
    expect([ownSize(pictured), madeSize(pictured)]).toEqual([
      { width: 200, height: 160 },
      { width: 300, height: 240 },
    ]);
    expect(madeSize(steps({ region: whole, size: { ...size(300), on: false } }))).toEqual({
      width: 200,
      height: 160,
    });
  });

  it('12 in at 300 ppi is 3600 px', () => {
    const unit = 12 * 96;
    expect(madeSize(steps({ region: { ...whole, width: 160 }, size: size((unit / 96) * 300) })).width).toBe(
      3600,
    );
  });

  it('is part of what the picture is named by, where it does something', () => {
    const name = (pictured: Pictured) => madeAsset({ pictured, lay: STRAIGHT });
    const plain = name(steps({}));
    expect(name(steps({ size: { ...size(300), on: false } }))).toBe(plain);
    expect(
      new Set([plain, name(steps({ size: size(300) })), name(steps({ size: size(300, 'mitchell') }))]).size,
    ).toBe(3);
  });

  it.each<PictureLay>([STRAIGHT, { kind: 'brick', step: 0.25 }, { kind: 'half-drop', step: 0.5 }])(
    'goes over the edges as the units are laid: %o',
    (lay) => {
      const unit = texture(48, 36, 7);
      const pictured = steps({ region: { ...whole, width: 48, height: 36 } });
      const laid = rasterOf(144, 108, (x, y) => {
        const [column, row] = [Math.floor(x / 48) - 1, Math.floor(y / 36) - 1];
        const across = lay.kind === 'brick' ? row * lay.step * 48 : 0;
        const down = lay.kind === 'half-drop' ? column * lay.step * 36 : 0;
        return pixelOf(unit, modulo(x - across, 48), modulo(y - down, 36));
      });
      for (const width of [24, 72]) {
        const made = resized(unit, { ...pictured, size: size(width) }, lay, true);
        const plane = resample(laid, 3 * made.width, 3 * made.height);
        for (let y = 0; y < made.height; y += 1)
          for (let x = 0; x < made.width; x += 1) {
            const expected = pixelOf(plane, x + made.width, y + made.height);
            const off = pixelOf(made, x, y).map((value, channel) => Math.abs(value - expected[channel]!));
            expect(Math.max(...off)).toBeLessThanOrEqual(1);
          }
      }
    },
  );

  it('is not enlarged where that is only looked at', () => {
    const unit: Raster = noisePicture(140, 112, 3);
    const pictured = steps({ region: { ...whole, width: 140, height: 112 }, size: size(280) });
    expect(resized(unit, pictured, STRAIGHT, false)).toBe(unit);
    expect(resized(unit, pictured, STRAIGHT, true).width).toBe(280);
    expect(pixelOf(resized(unit, { ...pictured, size: size(70) }, STRAIGHT, false), 0, 0)).toHaveLength(4);
  });

  it('is counted before anything is made', () => {
    const problems = (width: number) =>
      checkRecipe({
        kind: 'pictured',
        version: 2,
        measure: 'mm',
        pictured: steps({ size: size(width) }),
        lay: STRAIGHT,
        unit: { width: 100, height: 100 },
        ground: { kind: 'clear' },
        slots: [],
      }).map(({ path }) => path);
    expect(problems(900)).toEqual([]);
    expect(problems(7)).toEqual(['pictured.size.width']);
    expect(problems(9000)).toEqual(['pictured.size']);
    expect(problems(90_000)).toContain('pictured.size.width');
  });
});

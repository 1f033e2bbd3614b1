import { describe, expect, it } from 'vitest';
import { PAGE_PRESETS } from '../recipe/pages';
import { repeatsAcross } from '../lattice/whole';
import { asFraction, fractionText } from './fraction';
import { devicePixels, effectivePpi, fromPx, LENGTH_UNITS, toPx } from './length';
import { readQuantity } from './quantity';
import { modulo, wrapDegrees } from './tolerance';

describe('lengths', () => {
  // CSS Values and Units Module Level 4, "Absolute lengths": 1 in = 96 px = 72 pt = 25.4 mm.
  it('are exactly as CSS defines them', () => {
    expect(toPx(1, 'in')).toBe(96);
    expect(toPx(72, 'pt')).toBe(96);
    expect(toPx(25.4, 'mm')).toBe(96);
    expect(fromPx(96, 'mm')).toBe(25.4);
    expect(toPx(3, 'px')).toBe(3);
  });

  it.each(LENGTH_UNITS)('in %s go to px and back', (unit) => {
    for (const value of [0, 0.1, 1, 33.3, 297, 1e6])
      expect(fromPx(toPx(value, unit), unit)).toBeCloseTo(value, 9);
  });

  // Common practice, no source: the worked numbers of the trade.
  it('give the worked numbers of the trade', () => {
    expect(devicePixels(toPx(25, 'in'), 72)).toBe(1800);
    expect(devicePixels(toPx(12, 'in'), 300)).toBe(3600);
    const picture = devicePixels(toPx(3, 'in'), 72);
    expect(picture).toBe(216);
    expect(repeatsAcross(1800, picture)).toBeCloseTo(8 + 1 / 3, 12);
    expect(fractionText(repeatsAcross(1800, picture))).toBe('8 1/3');
    expect(effectivePpi(2000, toPx(12, 'in'))).toBeCloseTo(166.667, 3);
  });

  // ISO 216 (A series) and ISO/IEC 7810 (ID-1): sizes in mm as the standards print them.
  it('give the standard page sizes', () => {
    const size = (id: string) => {
      const preset = PAGE_PRESETS.find((known) => known.id === id);
      return preset && [preset.width, preset.height, preset.measure];
    };
    expect(size('a4')).toEqual([210, 297, 'mm']);
    expect(size('a3')).toEqual([297, 420, 'mm']);
    expect(size('a5')).toEqual([148, 210, 'mm']);
    expect(size('card')).toEqual([85.6, 53.98, 'mm']);
  });
});

describe('what is typed into a number field', () => {
  it.each([
    ['40', 40],
    ['120/3', 40],
    ['40mm', 40],
    ['1in', 25.4],
    ['1in + 4.6mm', 30],
    ['2*(3+4)', 14],
    ['12,5', 12.5],
    ['-3', -3],
    ['−3 × 2', -6],
    ['1"', 25.4],
    ['1e3', 1000],
    ['2,5E-1in', 6.35],
  ])('%s is read in mm as %d', (text, value) => {
    const read = readQuantity(text, { unit: 'mm' });
    expect(read.ok && read.value).toBeCloseTo(value, 9);
  });

  it.each(['', 'wide', '3 4', '5kg', '1/0', '(2', '2 +', '1e99999'])(
    '%j is refused with a sentence',
    (text) => {
      const read = readQuantity(text, { unit: 'mm' });
      expect(read.ok).toBe(false);
      expect(!read.ok && read.message).toMatch(/[.]$/);
    },
  );

  it('takes a suffix only where it belongs', () => {
    expect(readQuantity('140 %', { suffix: '%' })).toEqual({ ok: true, value: 140 });
    expect(readQuantity('45deg', { suffix: '°' })).toEqual({ ok: true, value: 45 });
    expect(readQuantity('45 mm', { suffix: '°' }).ok).toBe(false);
  });
});

describe('small numbers', () => {
  it('find the fraction behind a step', () => {
    expect(asFraction(1 / 3, 8)).toEqual({ numerator: 1, denominator: 3 });
    expect(asFraction(0.75, 8)).toEqual({ numerator: 3, denominator: 4 });
    expect(asFraction(0.3719, 8)).toBeNull();
    expect(asFraction(NaN, 8)).toBeNull();
  });

  it('wrap', () => {
    expect(modulo(-1, 5)).toBe(4);
    expect(wrapDegrees(540)).toBe(180);
    expect(wrapDegrees(-190)).toBe(170);
  });
});

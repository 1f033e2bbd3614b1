import Color from 'colorjs.io';
import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { compareColours, deltaE2000, deltaE2000Lab, differenceFrom, toLabD65 } from './difference';
import { hexOf } from './parse';

describe('the CIEDE2000 colour difference', () => {
  /**
   * The 34 pairs of G. Sharma, W. Wu and E. N. Dalal, "The CIEDE2000 Color-Difference Formula: Implementation Notes,
   * Supplementary Test Data, and Mathematical Observations", Color Research and Application 30 (2005).
   */
  const rows = readFileSync('tests/fixtures/ciede2000-sharma-2005.csv', 'utf8').trim().split('\n').slice(1);

  it('is that of all 34 published pairs, to four decimals', () => {
    expect(rows).toHaveLength(34);
    for (const row of rows) {
      const [l1, a1, b1, l2, a2, b2, expected] = row.split(',').map(Number) as [
        number,
        number,
        number,
        number,
        number,
        number,
        number,
      ];
      expect(deltaE2000Lab({ l: l1, a: a1, b: b1 }, { l: l2, a: a2, b: b2 })).toBeCloseTo(expected, 4);
      const isNear = (near: number): boolean => differenceFrom({ l: l1, a: a1, b: b1 }, near)(l2, a2, b2);
      expect([isNear(expected + 1e-4), isNear(expected - 1e-4)]).toEqual([true, false]);
    }
  });

  it('is tested against a bound as it is computed, for random colours and bounds', () => {
    const channel = fc.integer({ min: 0, max: 255 });
    const hex = fc.tuple(channel, channel, channel).map((rgb) => hexOf(rgb));
    fc.assert(
      fc.property(hex, hex, fc.double({ min: -1e-3, max: 1e-3, noNaN: true }), (one, other, off) => {
        const { l, a, b } = toLabD65(other);
        const near = deltaE2000(one, other) + off;
        fc.pre(Math.abs(off) > 1e-9 && near >= 0);
        expect(differenceFrom(toLabD65(one), near)(l, a, b)).toBe(off > 0);
      }),
      { numRuns: 2000 },
    );
  });

  // An independent library on random sRGB pairs; it goes through Lab of the D50 white, which moves colours a little.
  it('agrees with colorjs.io on random colours', () => {
    const channel = fc.integer({ min: 0, max: 255 });
    const hex = fc.tuple(channel, channel, channel).map((rgb) => hexOf(rgb));
    fc.assert(
      fc.property(hex, hex, (one, other) => {
        const [here, there] = [new Color(one).to('lab-d65'), new Color(other).to('lab-d65')];
        const lab = ({ coords }: Color): { l: number; a: number; b: number } => ({
          l: Number(coords[0]),
          a: Number(coords[1]),
          b: Number(coords[2]),
        });
        expect(deltaE2000(one, other)).toBeCloseTo(deltaE2000Lab(lab(here), lab(there)), 2);
      }),
      { numRuns: 200 },
    );
  });

  it('tells which colours can hardly be told apart', () => {
    expect(compareColours('#ffffff', '#fdfdfb')).toMatchObject({ alike: true });
    expect(compareColours('#ffffff', '#10394d')).toMatchObject({ alike: false });
    expect(compareColours('#ffffff', '#000000').ratio).toBeCloseTo(21, 9);
  });
});

import { describe, expect, it } from 'vitest';
import { colourFill, freshFill } from '$lib/core/recipe/fill';
import { LIMITS } from '$lib/core/recipe/limits';
import { freshAxis, isNumbers, readNumbers, triesOf, typedNumbers } from './tries';

describe('what is tried', () => {
  it('is what the fill has', () => {
    expect(triesOf(colourFill('c', { colour: '#112233' }), 3)).toEqual(['opacity']);
    expect(triesOf(freshFill('f', 'p'), 0)).not.toContain('colourway');
    expect(triesOf(freshFill('f', 'p'), 2)).toContain('colourway');
  });

  it('begins about what the fill shows now', () => {
    const fill = { ...freshFill('f', 'p'), scaleX: 0.4, scaleY: 0.4 };
    expect(freshAxis('scale', fill, [])).toEqual({ property: 'scale', values: [0.2, 0.3, 0.4, 0.6, 0.8] });
    expect(freshAxis('colourway', fill, ['a', 'b'])).toEqual({
      property: 'colourway',
      values: [null, 'a', 'b'],
    });
    const ways = Array.from({ length: 90 }, (_, index) => `w${index}`);
    expect(freshAxis('colourway', fill, ways).values).toHaveLength(LIMITS.tries);
  });

  it('is typed as numbers, with sums, and read back as typed', () => {
    for (const [property, text] of [
      ['scale', '25, 33.5, 700'],
      ['rotation', '-45, 0, 22.5'],
      ['opacity', '20, 100'],
    ] as const) {
      const read = readNumbers(property, text);
      expect(read.ok && isNumbers(read.axis) ? typedNumbers(read.axis) : read).toBe(text);
    }
    expect(readNumbers('scale', '100/4; 50+10 ')).toMatchObject({ axis: { values: [0.25, 0.6] } });
  });

  it('that cannot be read is answered with what is wrong', () => {
    const said = (property: 'scale' | 'rotation' | 'opacity', text: string): string => {
      const read = readNumbers(property, text);
      return read.ok ? '' : read.message;
    };
    expect(said('scale', '50, big')).toMatch(/“big” is not a number/);
    expect(said('scale', '50, 0')).toMatch(/Scale must be from 0.1 to .*“0” was given/);
    expect(said('opacity', '120')).toMatch(/Opacity must be from 0 to 100/);
    expect(said('rotation', ' , ')).toMatch(/at least one number/);
    expect(said('rotation', Array.from({ length: LIMITS.tries + 1 }, () => '5').join(','))).toMatch(
      /At most/,
    );
  });
});

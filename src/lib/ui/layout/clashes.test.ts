import { describe, expect, it } from 'vitest';
import { filledShape } from '../../../../tests/support/scenes';
import { freshPage } from '$lib/core/recipe/layout';
import type { Clash } from '$lib/core/recipe/merge-layouts';
import { fieldWords, valueWords, withClash } from './clashes';
import type { LayoutDoc } from './doc';

const doc: LayoutDoc = {
  ...freshPage(100, 100),
  name: 'Sign',
  shapes: [
    { ...filledShape({ x: 1, y: 2, width: 9, height: 9 }, { id: 'f', scaleX: 0.5 }), id: 'a', name: 'A' },
  ],
};
const clash = (path: string[], mine: unknown, shape: string | null = 'a'): Clash => ({
  ...{ shape, name: 'A', path, mine, theirs: null, kind: 'field' },
});

describe('a clash', () => {
  it.each([
    [['x'], 'place across'],
    [['rotation'], 'turn'],
    [['fills', 'f', 'scaleX'], 'scale across of a fill'],
    [['stroke', 'width'], 'width of its stroke'],
    [['stroke', 'fills', 'g', 'opacity'], 'opacity of a fill of its stroke'],
    [['fills', 'f'], 'kind of a fill'],
    [['background'], 'background'],
  ])('about %j is told as “%s”', (path, words) => expect(fieldWords({ path })).toBe(words));

  it.each([
    [['x'], 96, 'mm' as const, '25.4 mm'],
    [['width'], 96, 'in' as const, '1 in'],
    [['rotation'], 33.333, 'mm' as const, '33.33°'],
    [['fills', 'f', 'scaleX'], 0.8, 'px' as const, '80 %'],
    [['hidden'], true, 'px' as const, 'on'],
    [['name'], 'x'.repeat(60), 'px' as const, `${'x'.repeat(39)}…`],
    [['form'], { kind: 'ellipse' }, 'px' as const, null],
  ])('shows the value of %j as one reads it', (path, value, unit, words) =>
    expect(valueWords({ path }, value, unit)).toBe(words),
  );

  it('is settled by putting one’s own value in the place of theirs, wherever it stands; what is gone is told', () => {
    expect(withClash(doc, clash(['x'], 50))?.shapes[0]).toMatchObject({ x: 50, y: 2 });
    expect(withClash(doc, clash(['fills', 'f', 'scaleX'], 3))?.shapes[0]?.fills[0]).toMatchObject({
      scaleX: 3,
      scaleY: 1,
    });
    expect(withClash(doc, clash(['background'], '#102030', null))?.background).toBe('#102030');
    expect(withClash(doc, clash(['mask'], null))?.shapes[0]?.mask).toBeNull();
    expect(withClash(doc, clash(['x'], 5, 'gone'))).toBeNull();
    expect(withClash(doc, clash(['fills', 'gone', 'scaleX'], 5))).toBeNull();
    expect(withClash(doc, clash(['stroke', 'width'], 5))).toBeNull();
  });
});

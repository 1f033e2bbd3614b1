import { describe, expect, it } from 'vitest';
import { FILL_PROPERTIES, fillLike, type FillProperty } from './copy-fill';
import { colourFill, coveringPicture, freshFill, type PatternFill } from './fill';

const from: PatternFill = {
  ...freshFill('from', 'waves'),
  held: 2,
  scaleX: 0.5,
  scaleY: 0.6,
  rotation: 30,
  skew: 4,
  offset: { x: 5, y: 6 },
  anchor: { x: 1, y: 2 },
  opacity: 0.2,
  reflectX: true,
  blend: 'screen',
  ground: { kind: 'none' },
  groundOpacity: 0.7,
  colourway: 'night',
  colours: { ink: { colour: '#102030' } },
};
const to: PatternFill = {
  ...freshFill('to', 'bricks'),
  colourway: 'day',
  colours: { clay: { colour: '#aa5544' } },
};
const plain = { ...colourFill('c', { colour: '#ff0000' }), opacity: 0.5 };
const only = (...properties: FillProperty[]): ReadonlySet<FillProperty> => new Set(properties);
const all = only(...FILL_PROPERTIES);

describe('a fill like another', () => {
  it('is the whole of it under its own id, on a shape with any fill or none', () => {
    expect(fillLike(to, from, all, 'new')).toEqual({ ...from, id: 'to' });
    expect(fillLike(plain, from, all, 'new')).toEqual({ ...from, id: 'new' });
    expect(fillLike(null, from, all, 'new')).toEqual({ ...from, id: 'new' });
    expect(fillLike(to, plain, all, 'new')).toEqual({ ...plain, id: 'new' });
  });

  it('takes what was chosen and nothing else', () => {
    expect(fillLike(to, from, only('scale', 'opacity'), 'new')).toEqual({
      ...to,
      scaleX: 0.5,
      scaleY: 0.6,
      opacity: 0.2,
    });
    expect(fillLike(null, from, only('scale'), 'new')).toBeNull();
    expect(fillLike(plain, from, only('scale', 'opacity'), 'new')).toEqual({ ...plain, opacity: 0.2 });
    const picture = coveringPicture('p', { asset: 'a', width: 9, height: 9 }, { width: 90, height: 90 });
    expect(fillLike(picture, from, only('scale', 'colours', 'ground', 'reflection'), 'new')).toEqual({
      ...picture,
      scaleX: 0.5,
      scaleY: 0.6,
      reflectX: true,
    });
  });

  it('never gives one pattern the colours of another’s slots', () => {
    expect(fillLike(to, from, only('colours'), 'new')).toEqual(to);
    expect(fillLike(to, from, only('pattern'), 'new')).toMatchObject({
      pattern: 'waves',
      held: 2,
      colourway: null,
      colours: {},
    });
    expect(fillLike({ ...to, pattern: 'waves' }, from, only('colours'), 'new')).toMatchObject({
      colourway: 'night',
      colours: from.colours,
      scaleX: 1,
    });
  });
});

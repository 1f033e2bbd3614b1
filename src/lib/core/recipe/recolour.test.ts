import { describe, expect, it } from 'vitest';
import { tintOf } from '../colour/tint';
import { colourFill, freshFill, type PatternFill } from './fill';
import { fillLinks, followFill, followRecipe, recolourFill } from './links';
import { exchangeColours, recolourUse, replacePattern, shownTints } from './recolour';
import { emptyRecipe } from './recipe';

const slots = [
  { id: 'a', name: 'Ink', colour: '#111111', link: 'dark' },
  { id: 'b', name: 'Paper', colour: '#eeeeee' },
];
const colourways = [{ id: 'w', name: 'Warm', colours: { b: tintOf('#ffddaa', 'sand') } }];
const use: PatternFill = {
  ...freshFill('f', 'p'),
  colours: { a: tintOf('#222222', 'night') },
  ground: { kind: 'colour', ...tintOf('#333333', 'night') },
  colourway: 'w',
};

describe('colours that follow a palette', () => {
  it('are put in place everywhere, and nothing that stays is copied', () => {
    const links = new Map([['night', '#000044']]);
    const now = followFill(use, links) as PatternFill;
    expect([now.colours.a?.colour, now.ground.kind === 'colour' && now.ground.colour]).toEqual([
      '#000044',
      '#000044',
    ]);
    expect(followFill(now, links)).toBe(now);
    expect(followFill(use, new Map([['other', '#ffffff']]))).toBe(use);
    const recipe = { ...emptyRecipe('px', { width: 9, height: 9 }), slots };
    expect(followRecipe(recipe, new Map([['dark', '#010101']])).slots[0]?.colour).toBe('#010101');
    expect(followRecipe(recipe, links)).toBe(recipe);
    expect(fillLinks(use).sort()).toEqual(['night']);
  });

  it('stand in the order pattern, colourway, use', () => {
    expect(shownTints(use, { slots, colourways })).toEqual({
      a: tintOf('#222222', 'night'),
      b: tintOf('#ffddaa', 'sand'),
    });
    expect(shownTints({ ...use, colours: {}, colourway: 'gone' }, { slots, colourways })).toEqual({
      a: tintOf('#111111', 'dark'),
      b: tintOf('#eeeeee'),
    });
  });
});

describe('recolouring a use', () => {
  const exchange = exchangeColours([
    { from: { id: 'night', hex: '#222222' }, to: { id: 'red', hex: '#cc0000' } },
    { from: { id: 'paper', hex: '#eeeeee' }, to: { id: 'snow', hex: '#ffffff' } },
  ]);

  it('changes what follows a colour or looks just like it, the pattern’s own colours too', () => {
    const plain = { ...use, colourway: null };
    const after = recolourUse(plain, { slots, colourways }, exchange) as PatternFill;
    expect(after.colours).toEqual({ a: tintOf('#cc0000', 'red'), b: tintOf('#ffffff', 'snow') });
    expect(after.ground).toEqual({ kind: 'colour', colour: '#cc0000', link: 'red' });
    expect(after.scaleX).toBe(plain.scaleX);
  });

  it('leaves a fill that has none of them as the same object', () => {
    const other = { ...freshFill('g', 'p'), colours: { a: tintOf('#222222', 'else') } };
    expect(recolourUse(other, { slots: slots.slice(0, 1), colourways: [] }, exchange)).toBe(other);
    const colour = colourFill('c', { colour: '#eeeeee' });
    expect(recolourFill(colour, exchange)).toEqual({ ...colour, colour: '#ffffff', link: 'snow' });
  });
});

describe('replacing a pattern', () => {
  it('keeps size, turn and ground, and the colours of slots with the same name', () => {
    const after = replacePattern({ ...use, scaleX: 7, held: 3 }, 'q', slots, [
      { id: 'z', name: 'ink', colour: '#999999' },
    ]);
    expect(after).toEqual({
      ...use,
      scaleX: 7,
      pattern: 'q',
      held: null,
      colourway: null,
      colours: { z: use.colours.a },
    });
  });
});

import { describe, expect, it } from 'vitest';
import { fullLook, inkFault, inkNameFault, Inks, layInk, lightLeft, tintsOf, type InkedColour } from './inks';

const inked = (hex: string, name: string, tint = 1, overprint = false): InkedColour => ({
  ...{ hex, name: `${name} ${tint}` },
  ink: { name, tint, overprint },
});

describe('spot inks', () => {
  it.each(['Black', 'process cyan', ' K ', 'All', 'none', ''])('are not called “%s”', (name) => {
    expect(inkNameFault(name)).toMatch(/name/);
  });

  it.each([
    ['white', [inked('#ffffff', 'Foam')], /stands for the paper/],
    [
      'one look for two inks',
      [inked('#102030', 'Kelp'), inked('#102030', 'Rust')],
      /could not tell them apart/,
    ],
    ['one look for two tints', [inked('#102030', 'Kelp'), inked('#102030', 'Kelp', 0.4)], /tell them apart/],
    ['an ink of two minds', [inked('#102030', 'Kelp'), inked('#708090', 'Kelp', 0.4, true)], /choose one/],
    ['a gradient', [{ ...inked('#102030', 'Kelp'), gradient: [] }], /is a gradient/],
  ])('are refused for %s', (_what, colours, says) => {
    expect(inkFault(colours)).toEqual({
      index: colours.length - 1,
      message: expect.stringMatching(says) as string,
    });
  });

  it('print what has exactly their colour, and no other', () => {
    const inks = new Inks([
      inked('#0d5a50', 'Kelp'),
      inked('#9dc3bd', 'Kelp', 0.4),
      { hex: '#222222', name: 'Text' },
    ]);
    expect(inks.all.map(({ name }) => name)).toEqual(['Kelp']);
    expect(inks.of('#9dc3bd')).toMatchObject({ tint: 0.4, ink: { name: 'Kelp' } });
    expect(inks.of('#9dc3be')).toBeNull();
    expect(inks.of('#222222')).toBeNull();
  });

  it('of the first palette hold where two say otherwise of one colour', () => {
    const inks = new Inks([inked('#0d5a50', 'Kelp'), inked('#0d5a50', 'Rust')]);
    expect(inks.of('#0d5a50')?.ink.name).toBe('Kelp');
    expect(inks.all).toHaveLength(1);
  });

  it('print gradients among themselves and to paper, not to other colours', () => {
    const inks = new Inks([inked('#0d5a50', 'Kelp'), inked('#c4502e', 'Rust')]);
    expect(inks.ofStops(['#0d5a50', '#ffffff', '#c4502e'])?.map(({ name }) => name)).toEqual([
      'Kelp',
      'Rust',
    ]);
    expect(inks.ofStops(['#0d5a50', '#123456'])).toBeNull();
    expect(inks.ofStops(['#ffffff', '#ffffff'])).toBeNull();
  });

  it('of which only a tint is known look in line with it when they are full', () => {
    const [ink] = new Inks([inked('#cc99b3', 'Rose', 0.4)]).all;
    // 255 − (255 − 204) ∕ 0.4 is 127.5, 255 − (255 − 153) ∕ 0.4 is 0, 255 − (255 − 179) ∕ 0.4 is 65.
    expect(tintsOf(ink!).map(({ tint, rgb }) => [tint, ...rgb.map(Math.round)])).toEqual([
      [0, 255, 255, 255],
      [0.4, 204, 153, 179],
      [1, 128, 0, 65],
    ]);
  });

  // A page once looked 216 where its palette colour is 157, as 40 % of a tint of 40 %.
  it('are laid on paper and on each other so that each known tint looks as its palette colour', () => {
    const [quay, gloss] = new Inks([
      inked('#9dc3bd', 'Quay', 0.4),
      inked('#0d5a50', 'Quay', 0.9),
      inked('#e8e0ff', 'Shine'),
    ]).all;
    const px = Uint8Array.from({ length: 15 }, () => 255);
    // Paper, two known tints, half way between these, and the second with another ink over it.
    layInk(px, 3, Uint8Array.of(0, 102, 230, 166, 230), lightLeft(quay!));
    layInk(px, 3, Uint8Array.of(0, 0, 0, 0, 255), lightLeft(gloss!));
    const rows = Array.from({ length: 5 }, (_one, at) => [...px.subarray(3 * at, 3 * at + 3)]);
    expect(rows[0]).toEqual([255, 255, 255]);
    expect(rows[1]).toEqual([0x9d, 0xc3, 0xbd]);
    // 230 of 255 is a little over 90 %.
    for (const [channel, value] of [0x0d, 0x5a, 0x50].entries())
      expect(Math.abs(rows[2]![channel]! - value)).toBeLessThanOrEqual(1);
    for (const [channel, value] of [(0x9d + 0x0d) / 2, (0xc3 + 0x5a) / 2, (0xbd + 0x50) / 2].entries())
      expect(Math.abs(rows[3]![channel]! - value)).toBeLessThanOrEqual(1);
    expect(Math.abs(rows[4]![0]! - (0x0d * 0xe8) / 255)).toBeLessThanOrEqual(1);
    expect(fullLook(gloss!)).toBe('#e8e0ff');
  });
});

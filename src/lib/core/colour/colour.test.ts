import Color from 'colorjs.io';
import { converter } from 'culori';
import { describe, expect, it } from 'vitest';
import { seededRandom } from '../num/random';
import { contrastRatio } from './contrast';
import { channelsOf, hexOf } from './parse';
import { readColour } from './space';
import { resolveSlots } from './slots';

describe('contrast', () => {
  // WCAG 2.2, "contrast ratio": black on white is 21 : 1; #767676 on white is the well-known grey just over 4.5 : 1.
  it('has the values of WCAG 2.2', () => {
    expect(contrastRatio('#000000', '#ffffff')).toBe(21);
    expect(contrastRatio('#ffffff', '#000000')).toBe(21);
    expect(contrastRatio('#767676', '#ffffff')).toBeGreaterThan(4.5);
    expect(contrastRatio('#777777', '#ffffff')).toBeLessThan(4.5);
  });

  // colorjs.io as an independent library.
  it('agrees with an independent library on random colours', () => {
    const random = seededRandom(5);
    for (let round = 0; round < 200; round += 1) {
      const [one, other] = [randomHex(random), randomHex(random)];
      expect(contrastRatio(one, other)).toBeCloseTo(new Color(one).contrast(other, 'WCAG21'), 2);
    }
  });
});

describe('colour text', () => {
  it.each([
    ['#0D5A50', '#0d5a50'],
    ['0d5a50', '#0d5a50'],
    ['#fff', '#ffffff'],
    ['teal', '#008080'],
    ['rgb(255 128 0)', '#ff8000'],
    ['hsl(120 100% 50%)', '#00ff00'],
    ['oklch(0.6279 0.2577 29.23)', '#ff0000'],
  ])('%s is read as %s', (text, hex) => {
    expect(readColour(text)).toEqual({ ok: true, hex, outside: false });
  });

  it.each(['', 'reddish', '#12', 'rgb(0 0 0 / 50%)'])('%j is refused with a sentence', (text) => {
    const read = readColour(text);
    expect(read.ok).toBe(false);
    expect(!read.ok && read.message).toMatch(/[.]$/);
  });

  it('and channels go both ways', () => {
    expect(hexOf(channelsOf('#0d5a50'))).toBe('#0d5a50');
  });

  // CSS Color 4 conversions as two independent libraries do them.
  it('converts to OKLab and Lab as an independent library does', () => {
    const random = seededRandom(9);
    const toOklab = converter('oklab');
    const toLab = converter('lab');
    for (let round = 0; round < 100; round += 1) {
      const hex = randomHex(random);
      const ours = toOklab(hex);
      const lab = toLab(hex);
      const [l, a, b] = new Color(hex).to('oklab').coords.map(Number);
      const [l2, a2, b2] = new Color(hex).to('lab').coords.map(Number);
      expect(
        Math.max(
          Math.abs((ours?.l ?? 9) - (l ?? 0)),
          Math.abs((ours?.a ?? 9) - (a ?? 0)),
          Math.abs((ours?.b ?? 9) - (b ?? 0)),
        ),
      ).toBeLessThan(1e-4);
      expect(
        Math.max(
          Math.abs((lab?.l ?? 999) - (l2 ?? 0)),
          Math.abs((lab?.a ?? 999) - (a2 ?? 0)),
          Math.abs((lab?.b ?? 999) - (b2 ?? 0)),
        ),
      ).toBeLessThan(1e-2);
    }
  });
});

it('slots keep their own colour where a use names none', () => {
  const slots = [
    { id: 'a', name: 'A', colour: '#111111' },
    { id: 'b', name: 'B', colour: '#222222' },
  ];
  expect(resolveSlots(slots, { b: '#333333', gone: '#444444' })).toEqual({ a: '#111111', b: '#333333' });
});

function randomHex(random: () => number): string {
  return hexOf([Math.floor(random() * 256), Math.floor(random() * 256), Math.floor(random() * 256)]);
}

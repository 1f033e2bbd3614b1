import { converter } from 'culori';
import { describe, expect, it } from 'vitest';
import { contrastRatio } from '../colour/contrast';
import { PLAIN_LOOK, type PictureLook } from '../colour/look';
import { channelsOf, hexOf } from '../colour/parse';
import { toOklch } from '../colour/space';
import { seededRandom } from '../num/random';
import { judgeLegibility } from './legible';
import { averageColour, recolourPicture, samplePoints, type StraightPicture } from './recolour';

function pictureOf(hexes: string[], width = hexes.length, alpha = 255): StraightPicture {
  const data = new Uint8Array(hexes.flatMap((hex) => [...channelsOf(hex), alpha]));
  return { width, height: hexes.length / width, data };
}
const hexAt = ({ data }: StraightPicture, index: number): string =>
  hexOf([data[index * 4]!, data[index * 4 + 1]!, data[index * 4 + 2]!]);
function through(hex: string, look: Partial<PictureLook>): string {
  const picture = pictureOf([hex]);
  recolourPicture(picture, { ...PLAIN_LOOK, ...look });
  return hexAt(picture, 0);
}

describe('recolouring a picture', () => {
  // OKLab of CSS Color 4 as culori computes it: an identity look must give every colour back.
  it('gives colours back where nothing changes', () => {
    const random = seededRandom(4);
    for (let round = 0; round < 300; round += 1) {
      const hex = hexOf([random() * 255, random() * 255, random() * 255]);
      expect(through(hex, { shift: { hue: 0, lightness: 0, chroma: 1.0000001 } })).toBe(hex);
    }
  });

  it('maps black and white onto the ends of the map and grey between them in OKLab', () => {
    const map = [{ colour: '#10394d' }, { colour: '#f3c14b' }];
    expect(through('#000000', { map })).toBe('#10394d');
    expect(through('#ffffff', { map })).toBe('#f3c14b');
    const toOklab = converter('oklab');
    const [dark, light] = [toOklab('#10394d')!, toOklab('#f3c14b')!];
    const grey = toOklab('#777777')!.l;
    const mixed = toOklab(through('#777777', { map }))!;
    expect(mixed.l).toBeCloseTo(dark.l + (light.l - dark.l) * grey, 2);
    expect(mixed.b).toBeCloseTo(dark.b + (light.b - dark.b) * grey, 2);
  });

  it('turns hue, lowers chroma, tints, and leaves alpha', () => {
    const turned = toOklch(through('#2f8fab', { shift: { hue: 90, lightness: 0, chroma: 0.6 } }));
    const before = toOklch('#2f8fab');
    expect(turned.h - before.h).toBeCloseTo(90, -0.5);
    expect(turned.c).toBeCloseTo(before.c * 0.6, 2);
    expect(toOklch(through('#888888', { tint: { colour: '#b5462f', amount: 1 } })).h).toBeCloseTo(
      toOklch('#b5462f').h,
      0,
    );
    const clear = pictureOf(['#123456'], 1, 77);
    recolourPicture(clear, { ...PLAIN_LOOK, tint: { colour: '#b5462f', amount: 1 } });
    expect(clear.data[3]).toBe(77);
  });

  it('reads one pixel or the mean of an area, in linear light', () => {
    const picture = pictureOf(['#000000', '#ffffff', '#000000', '#ffffff'], 2);
    expect(averageColour(picture, 0, 0, 1)).toEqual([0, 0, 0]);
    expect(averageColour(picture, 0, 0, 3)).toEqual([188, 188, 188]);
    expect(averageColour(pictureOf(['#ff0000'], 1, 0), 0, 0, 1)).toBeNull();
    expect(samplePoints(picture)).toHaveLength(4);
  });
});

describe('text or a logo on a pattern', () => {
  // Left half white, right half #767676: against black text, by WCAG 2.2's own numbers.
  it('has the contrast of the worst place, with its place', () => {
    const row = [...Array(20).fill('#ffffff'), ...Array(20).fill('#767676')] as string[];
    const picture = pictureOf(Array.from({ length: 10 }, () => row).flat(), 40);
    const found = judgeLegibility(picture, '#000000', 5);
    expect(found.best).toBeCloseTo(21, 6);
    expect(found.worst).toBeCloseTo(contrastRatio('#000000', '#767676'), 6);
    expect(found.x).toBeGreaterThan(20);
    const fine = judgeLegibility(picture, '#ffffff', 1);
    expect(fine.worst).toBeCloseTo(1, 6);
    expect(fine.share).toBeCloseTo(0.5, 6);
  });

  it('looks over the edges of the unit', () => {
    const row = ['#000000', ...Array(9).fill('#ffffff')] as string[];
    const found = judgeLegibility(pictureOf(Array.from({ length: 10 }, () => row).flat(), 10), '#000000', 3);
    expect([9, 0, 1]).toContain(found.x);
  });
});

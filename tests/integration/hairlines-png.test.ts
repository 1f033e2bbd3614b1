import { Resvg } from '@resvg/resvg-js';
import { describe, expect, it } from 'vitest';
import { seededRandom } from '../../src/lib/core/num/random';
import type { Recipe } from '../../src/lib/core/recipe/recipe';
import { layoutSvg } from '../../src/lib/core/svg/layout';
import { block, drawing, place, recipe } from '../support/recipes';
import { filledPage } from '../support/scenes';

/** The largest difference of any channel from `colour`, over the picture. */
export function worstDeviation(pixels: Uint8Array, colour: readonly number[]): number {
  let worst = 0;
  for (let at = 0; at < pixels.length; at += 4)
    for (let channel = 0; channel < 4; channel += 1)
      worst = Math.max(worst, Math.abs((pixels[at + channel] ?? 0) - (colour[channel] ?? 0)));
  return worst;
}

const SOLID: [string, Recipe][] = [
  ['one block', recipe({ motifs: [block('b', 100, 100)], placings: [place('b', 50, 50)] })],
  [
    'two blocks side by side, brick',
    recipe({
      repeat: { kind: 'brick', step: 1 / 3, run: 'progressive' },
      motifs: [block('b', 50, 100)],
      placings: [place('b', 25, 50), place('b', 75, 50)],
    }),
  ],
  [
    'two triangles',
    recipe({
      motifs: [drawing('t', 'M-50-50L50-50L-50 50Z'), drawing('u', 'M50-50L50 50L-50 50Z')],
      placings: [place('t', 50, 50), place('u', 50, 50)],
    }),
  ],
  [
    'a line across',
    recipe({
      motifs: [
        {
          id: 'l',
          name: 'l',
          content: { kind: 'line', length: 100, thickness: 100, cap: 'butt', slot: 'ink' },
        },
      ],
      placings: [place('l', 50, 50)],
    }),
  ],
];

/** Acceptance of the product: largest deviation ≤ 2/255 at 200 random scales and rotations. */
describe.each(SOLID)('edge-to-edge art drawn for PNG: %s', (_name, art) => {
  it('is solid at 200 random scales and rotations', () => {
    const random = seededRandom(7);
    let worst = 0;
    for (let round = 0; round < 200; round += 1) {
      const scale = 0.1 * 70 ** random();
      const fill = {
        scaleX: scale,
        scaleY: scale,
        rotation: random() * 360,
        offset: { x: random() * 90, y: random() * 90 },
      };
      const svg = layoutSvg(filledPage(art, 120, fill), {
        patterns: 'expanded',
        width: '120',
        height: '120',
        scale: 1,
      });
      const rendered = new Resvg(svg).render();
      worst = Math.max(worst, worstDeviation(rendered.pixels, [0x10, 0x20, 0x30, 255]));
    }
    expect(worst).toBeLessThanOrEqual(2);
  });
});

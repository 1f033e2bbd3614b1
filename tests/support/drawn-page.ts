import { Resvg } from '@resvg/resvg-js';
import type { PatternFill } from '../../src/lib/core/recipe/fill';
import type { Recipe } from '../../src/lib/core/recipe/recipe';
import { layoutSvg } from '../../src/lib/core/svg/layout';
import { filledPage } from './scenes';

/** A drawn page; `at` tells the red, green and blue of the pixel that a point lies in. */
export type Picture = { side: number; at: (x: number, y: number) => [number, number, number] };

/** A page of `side` px filled with a recipe on white, drawn copy by copy, or as a live pattern. */
export function drawn(
  of: Recipe,
  side: number,
  fill: Partial<PatternFill> = {},
  patterns: 'expanded' | 'live' = 'expanded',
): Picture {
  const scene = filledPage(of, side, fill, '#ffffff');
  const svg = layoutSvg(scene, { patterns, width: `${side}`, height: `${side}` });
  const { pixels } = new Resvg(svg).render();
  return {
    side,
    at: (x, y) => {
      const place = (Math.floor(y) * side + Math.floor(x)) * 4;
      return [pixels[place] ?? 0, pixels[place + 1] ?? 0, pixels[place + 2] ?? 0];
    },
  };
}

/** How far two colours lie apart in the channel where they differ most. */
export const far = (one: readonly number[], other: readonly number[]): number =>
  Math.max(...one.map((value, channel) => Math.abs(value - (other[channel] ?? 0))));

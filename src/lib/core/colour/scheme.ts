import { modulo } from '../num/tolerance';
import type { Hex } from './parse';
import { fromOklch, mostChroma, toOklch, type Oklch } from './space';

/** The classic schemes of the colour circle, as hues turned from the first colour, in degrees. */
export const SCHEMES = {
  complementary: [0, 180],
  analogous: [-30, 0, 30],
  triad: [0, 120, 240],
  split: [0, 150, 210],
  tetrad: [0, 90, 180, 270],
} as const;

export type SchemeKind = keyof typeof SCHEMES | 'monochrome';

/**
 * The colours of a scheme round a colour. Hues turn at constant OKLCH lightness and, where sRGB allows it, constant
 * chroma; `monochrome` steps the lightness at constant hue instead.
 */
export function schemeOf(hex: Hex, kind: SchemeKind, steps = 5): Hex[] {
  const base = toOklch(hex);
  if (kind === 'monochrome') {
    return Array.from({ length: steps }, (_, index) => {
      const l = 0.25 + (0.7 * index) / Math.max(1, steps - 1);
      return within({ ...base, l });
    });
  }
  return SCHEMES[kind].map((turn) => (turn === 0 ? hex : within({ ...base, h: modulo(base.h + turn, 360) })));
}

/** A shift in OKLCH: hue in degrees, lightness added (−1 to 1), chroma as a factor. */
export type ColourShift = { hue: number; lightness: number; chroma: number };

export const NO_SHIFT: ColourShift = { hue: 0, lightness: 0, chroma: 1 };

/** A colour shifted; chroma gives way where sRGB ends, lightness and hue stay. */
export function shifted(hex: Hex, { hue, lightness, chroma }: ColourShift): Hex {
  if (hue === 0 && lightness === 0 && chroma === 1) return hex;
  const { l, c, h } = toOklch(hex);
  return within({ l: Math.min(1, Math.max(0, l + lightness)), c: c * chroma, h: modulo(h + hue, 360) });
}

function within(colour: Oklch): Hex {
  return fromOklch({ ...colour, c: Math.min(colour.c, mostChroma(colour.l, colour.h)) });
}

import { converter, differenceCiede2000 } from 'culori';
import { contrastRatio } from './contrast';
import type { Hex } from './parse';

const ciede2000 = differenceCiede2000();
const toLab = converter('lab65');

/** A colour in CIE Lab. */
export type Lab = { l: number; a: number; b: number };

/** The CIEDE2000 colour difference of two colours in Lab of the same white (ISO/CIE 11664-6). */
export function deltaE2000Lab(one: Lab, other: Lab): number {
  return ciede2000({ mode: 'lab65', ...one }, { mode: 'lab65', ...other });
}

/** A colour in Lab of the D65 white. */
export function toLabD65(hex: Hex): Lab {
  const { l, a, b } = toLab(hex) ?? { l: 0, a: 0, b: 0 };
  return { l, a, b };
}

/**
 * The most that two colours can differ in L* while ΔE2000 is 1: the weight S_L = 1 + 0.015 (L − 50)² / √(20 + (L − 50)²)
 * is greatest at both ends of the scale.
 */
export const MOST_LIGHTNESS = 1 + (0.015 * 50 ** 2) / Math.sqrt(20 + 50 ** 2);

/** The CIEDE2000 colour difference of two sRGB colours, in Lab of the D65 white. */
export function deltaE2000(one: Hex, other: Hex): number {
  const [here, there] = [toLab(one), toLab(other)];
  return here && there ? deltaE2000Lab(here, there) : Number.NaN;
}

/** Colours nearer than this are hard to tell apart at a glance over an area: our own choice, 2.3 being just noticeable. */
const TOLD_APART = 6;

/** How two colours stand against each other: contrast (WCAG 2.2), ΔE2000, and whether they can be told apart. */
export function compareColours(one: Hex, other: Hex): { ratio: number; deltaE: number; alike: boolean } {
  const deltaE = deltaE2000(one, other);
  return { ratio: contrastRatio(one, other), deltaE, alike: deltaE < TOLD_APART };
}

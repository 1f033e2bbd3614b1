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

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

const POWER_25 = 25 ** 7;
const RADIANS = Math.PI / 180;

/**
 * A test whether a colour (L*, a*, b*) is at most `near` from `target` by CIEDE2000 (ISO/CIE 11664-6, in the steps of
 * Sharma, Wu and Dalal 2005). For tens of thousands of colours at once: nothing is made, and what differs too much in
 * lightness alone goes no further.
 */
export function differenceFrom(target: Lab, near: number): (l: number, a: number, b: number) => boolean {
  const most = near * near;
  const chroma = Math.hypot(target.a, target.b);
  return (l, a, b) => {
    const middle = (target.l + l) / 2 - 50;
    const lightness = (l - target.l) / (1 + (0.015 * middle * middle) / Math.sqrt(20 + middle * middle));
    const left = most - lightness * lightness;
    if (left < 0) return false;
    const stretch = 1.5 - 0.5 * Math.sqrt(powerShare((chroma + Math.sqrt(a * a + b * b)) / 2));
    const [a1, a2] = [target.a * stretch, a * stretch];
    const c1 = Math.sqrt(a1 * a1 + target.b * target.b);
    const c2 = Math.sqrt(a2 * a2 + b * b);
    const mean = (c1 + c2) / 2;
    const saturation = (c2 - c1) / (1 + 0.045 * mean);
    const [h1, h2] = [hueOf(a1, target.b), hueOf(a2, b)];
    const grey = c1 * c2 === 0;
    const turn = grey ? 0 : shortTurn(h2 - h1);
    const hue = grey ? h1 + h2 : meanHue(h1, h2);
    const weight =
      1 -
      0.17 * Math.cos((hue - 30) * RADIANS) +
      0.24 * Math.cos(2 * hue * RADIANS) +
      0.32 * Math.cos((3 * hue + 6) * RADIANS) -
      0.2 * Math.cos((4 * hue - 63) * RADIANS);
    const shift = (2 * Math.sqrt(c1 * c2) * Math.sin((turn / 2) * RADIANS)) / (1 + 0.015 * mean * weight);
    const bend = 60 * Math.exp(-(((hue - 275) / 25) ** 2));
    const rotation = -2 * Math.sqrt(powerShare(mean)) * Math.sin(bend * RADIANS);
    return saturation * saturation + shift * shift + rotation * saturation * shift <= left;
  };
}

function powerShare(chroma: number): number {
  const power = chroma ** 7;
  return power / (power + POWER_25);
}

/** Degrees, 0 to 360; 0 for a grey. */
function hueOf(a: number, b: number): number {
  const degrees = Math.atan2(b, a) / RADIANS;
  return degrees < 0 ? degrees + 360 : degrees;
}

const shortTurn = (degrees: number): number =>
  degrees > 180 ? degrees - 360 : degrees < -180 ? degrees + 360 : degrees;

function meanHue(one: number, other: number): number {
  const sum = one + other;
  if (Math.abs(one - other) <= 180) return sum / 2;
  return sum < 360 ? (sum + 360) / 2 : (sum - 360) / 2;
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

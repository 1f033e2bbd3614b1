import { channelsOf, type Hex } from './parse';

/** Relative luminance, 0 to 1, of an sRGB colour (WCAG 2.2, "relative luminance"). */
export function relativeLuminance(hex: Hex): number {
  const [r, g, b] = channelsOf(hex).map((channel) => linear(channel / 255)) as [number, number, number];
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}

/** Contrast ratio, 1 to 21, of two colours in either order (WCAG 2.2, "contrast ratio"). */
export function contrastRatio(one: Hex, other: Hex): number {
  const a = relativeLuminance(one);
  const b = relativeLuminance(other);
  return (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05);
}

/** sRGB transfer function, encoded → linear (IEC 61966-2-1, as CSS Color 4 gives it). */
function linear(channel: number): number {
  return channel <= 0.04045 ? channel / 12.92 : ((channel + 0.055) / 1.055) ** 2.4;
}

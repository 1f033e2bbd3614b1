import { channelsOf, type Hex } from './parse';

/** Encoded byte → linear, 0 to 1: the transfer function for eight-bit pixels. */
export const LINEAR: Float64Array = Float64Array.from({ length: 256 }, (_, byte) => linear(byte / 255));

/** Relative luminance, 0 to 1, of an sRGB colour (WCAG 2.2, "relative luminance"). */
export function relativeLuminance(hex: Hex): number {
  return luminanceOf(...channelsOf(hex));
}

/** Relative luminance of channels 0 to 255. */
export const luminanceOf = (r: number, g: number, b: number): number =>
  0.2126 * LINEAR[r]! + 0.7152 * LINEAR[g]! + 0.0722 * LINEAR[b]!;

/** Contrast ratio, 1 to 21, of two colours in either order (WCAG 2.2, "contrast ratio"). */
export function contrastRatio(one: Hex, other: Hex): number {
  const a = relativeLuminance(one);
  const b = relativeLuminance(other);
  return (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05);
}

/** sRGB transfer function, encoded → linear, both 0 to 1 (IEC 61966-2-1, as CSS Color 4 gives it). */
function linear(channel: number): number {
  return channel <= 0.04045 ? channel / 12.92 : ((channel + 0.055) / 1.055) ** 2.4;
}

import { modulo } from '../num/tolerance';
import { luminanceOf, relativeLuminance } from '../colour/contrast';
import type { Hex } from '../colour/parse';
import type { StraightPicture } from './recolour';

/** How a colour reads on a repeating picture: the worst and best local contrast ratio (WCAG 2.2), and where the worst is. */
export type Legibility = { worst: number; best: number; x: number; y: number; share: number };

/** WCAG 2.2, success criterion 1.4.3: the least contrast of text. */
const ENOUGH = 4.5;

/**
 * The contrast of text or a logo in one colour on a repeating picture. Round each pixel the luminance is averaged over
 * a square of `side` px with wrap over the edges (a stroke's surroundings), and held against the colour. `share` is how
 * much of the area has at least 4.5 : 1. `x`, `y` is the middle of the worst square, in px of the picture.
 */
export function judgeLegibility(picture: StraightPicture, colour: Hex, side: number): Legibility {
  const { width, height } = picture;
  const light = luminances(picture);
  const own = relativeLuminance(colour);
  const reach = Math.max(0, Math.floor(Math.min(side, width, height) / 2));
  const across = boxBlur(light, width, height, reach, 1);
  const blurred = boxBlur(across, width, height, reach, width);
  let worst = { ratio: Number.POSITIVE_INFINITY, at: 0 };
  let best = 0;
  let enough = 0;
  blurred.forEach((value, at) => {
    const ratio = (Math.max(own, value) + 0.05) / (Math.min(own, value) + 0.05);
    if (ratio < worst.ratio) worst = { ratio, at };
    if (ratio > best) best = ratio;
    if (ratio >= ENOUGH) enough += 1;
  });
  return {
    worst: worst.ratio,
    best,
    x: worst.at % width,
    y: Math.floor(worst.at / width),
    share: enough / blurred.length,
  };
}

function luminances({ width, height, data }: StraightPicture): Float64Array {
  const light = new Float64Array(width * height);
  for (let at = 0; at < light.length; at += 1)
    light[at] = luminanceOf(data[at * 4]!, data[at * 4 + 1]!, data[at * 4 + 2]!);
  return light;
}

/** A running mean over 2 · reach + 1 values with wrap, along rows (`stride` 1) or columns (`stride` = width). */
function boxBlur(
  values: Float64Array,
  width: number,
  height: number,
  reach: number,
  stride: number,
): Float64Array {
  if (reach === 0) return values;
  const out = new Float64Array(values.length);
  const [lines, length] = stride === 1 ? [height, width] : [width, height];
  const start = (line: number): number => (stride === 1 ? line * width : line);
  const count = 2 * reach + 1;
  for (let line = 0; line < lines; line += 1) {
    const first = start(line);
    const value = (index: number): number => values[first + modulo(index, length) * stride]!;
    let sum = 0;
    for (let index = -reach; index <= reach; index += 1) sum += value(index);
    for (let index = 0; index < length; index += 1) {
      out[first + index * stride] = sum / count;
      sum += value(index + reach + 1) - value(index - reach);
    }
  }
  return out;
}

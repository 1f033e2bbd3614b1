import { LINEAR } from '../colour/contrast';
import type { Size } from '../lattice/size';
import type { Raster } from '../raster/composite';
import { resample } from '../raster/resample';
import { transform2 } from './fourier';

/** How strongly the eye finds the unit of a repeat from a distance. */
export type RepeatFigure = { figure: number; word: 'none' | 'faint' | 'plain' };

/** The unit is looked at in so many px a side at most: what is finer does not tell one unit from the next. */
const SEEN_SIDE = 96;
/** Structures as large as a third of the unit and more tell where it begins again. */
const ORDERS = 3;
/** From these figures on, in units of lightness, it is faint, and plain: our own choice, by looking. */
const FAINT = 0.8;
const PLAIN = 2;

/**
 * How much of a unit's light changes with the unit itself, as it is seen from `distance` (in the same unit of length as
 * `size`): the energy of the first orders of its own lattice, each weighted by the contrast sensitivity of the eye
 * at its frequency (Mannos and Sakrison 1974, "The effects of a visual fidelity criterion on the encoding of images").
 */
export function repeatFigure(unit: Raster, size: Size, distance: number): RepeatFigure {
  const fit = Math.min(1, SEEN_SIDE / Math.max(unit.width, unit.height));
  const width = Math.max(2, Math.round(unit.width * fit));
  const height = Math.max(2, Math.round(unit.height * fit));
  const seen = fit < 1 ? resample(unit, width, height, 'wrap') : unit;
  const light = Float64Array.from({ length: width * height }, (_, at) => lightness(seen.data, at * 4));
  const { re, im } = transform2(light, new Float64Array(light.length), width, height, 'forward');
  let energy = 0;
  for (let k = -ORDERS; k <= ORDERS; k += 1)
    for (let l = -ORDERS; l <= ORDERS; l += 1) {
      if ((k === 0 && l === 0) || 2 * Math.abs(k) > width || 2 * Math.abs(l) > height) continue;
      const at = ((l + height) % height) * width + ((k + width) % width);
      const amplitude = Math.hypot(re[at]!, im[at]!) / light.length;
      const cycles = Math.hypot(k / size.width, l / size.height);
      energy += (amplitude * sensitivity((cycles * distance * Math.PI) / 180)) ** 2;
    }
  const figure = Math.sqrt(energy);
  return { figure, word: figure >= PLAIN ? 'plain' : figure >= FAINT ? 'faint' : 'none' };
}

/** The eye's sensitivity to a wave of so many cycles a degree, 1 at its most. */
export const sensitivity = (cycles: number): number =>
  2.6 * (0.0192 + 0.114 * cycles) * Math.exp(-((0.114 * cycles) ** 1.1));

/** CIE L* (1976), 0 to 100, of a pixel over mid grey where it is clear. */
function lightness(data: Uint8Array, at: number): number {
  const rest = (255 - data[at + 3]!) >> 1;
  const y =
    0.2126 * LINEAR[data[at]! + rest]! +
    0.7152 * LINEAR[data[at + 1]! + rest]! +
    0.0722 * LINEAR[data[at + 2]! + rest]!;
  return y > 216 / 24389 ? 116 * Math.cbrt(y) - 16 : (24389 / 27) * y;
}

import type { Raster } from './composite';

/** The mean alpha of a picture, 0 to 1: the share of it that is covered. */
export function coveredShare({ data }: Raster): number {
  let sum = 0;
  for (let at = 3; at < data.length; at += 4) sum += data[at]!;
  return data.length === 0 ? 0 : sum / (255 * (data.length / 4));
}

/**
 * The mean of a picture's red, 0 to 1. Of a drawing in which one colour is white and all others are black on black,
 * this is the share of the area where that colour is seen.
 */
export function whiteShare({ data }: Raster): number {
  let sum = 0;
  for (let at = 0; at < data.length; at += 4) sum += (data[at]! * data[at + 3]!) / 255;
  return data.length === 0 ? 0 : sum / (255 * (data.length / 4));
}

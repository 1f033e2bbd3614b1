import type { Raster } from '../raster/composite';
import { transformOf } from './fourier';

/** How far apart a picture repeats by itself along one of its sides, px, and how alike it is to itself there: 0 to 1. */
export type Period = { length: number; alike: number };

/** What is less alike than this to itself, at every distance, does not repeat: our own choice. */
const LEAST_ALIKE = 0.3;
/** Shorter ones are grain, px. */
const SHORTEST = 6;
/** A part of a period is the period itself where it is nearly as much alike. */
const NEARLY = 0.88;

/**
 * The distances at which a picture is most like itself, across and down: the autocorrelation of its light, by the
 * Wiener–Khinchin theorem row by row, each distance over what overlaps there. `null` where it does not repeat; at most a
 * half of a side can be found.
 */
export function ownPeriod(picture: Raster): { across: Period | null; down: Period | null } {
  const { width, height } = picture;
  const light = lightOf(picture);
  return {
    across: along(width, height, (row, at) => light[row * width + at]!),
    down: along(height, width, (row, at) => light[at * width + row]!),
  };
}

function along(length: number, rows: number, value: (row: number, at: number) => number): Period | null {
  if (length < 4 * SHORTEST) return null;
  let size = 1;
  while (size < 2 * length) size *= 2;
  const transform = transformOf(size);
  const power = new Float64Array(size);
  for (let row = 0; row < rows; row += 1) {
    const re = new Float64Array(size);
    let mean = 0;
    for (let at = 0; at < length; at += 1) mean += value(row, at) / length;
    for (let at = 0; at < length; at += 1) re[at] = value(row, at) - mean;
    const turned = transform.forward({ re, im: new Float64Array(size) });
    for (let k = 0; k < size; k += 1) power[k]! += turned.re[k]! ** 2 + turned.im[k]! ** 2;
  }
  const { re: sums } = transform.backward({ re: power, im: new Float64Array(size) });
  const whole = sums[0]! / length;
  if (!(whole > 1e-9)) return null;
  const alike = (lag: number): number => sums[lag]! / (length - lag) / whole;
  const most = Math.floor(length / 2);
  let best = 0;
  for (let lag = SHORTEST; lag <= most; lag += 1)
    if (isPeak(alike, lag) && (best === 0 || alike(lag) > alike(best))) best = lag;
  if (best === 0 || alike(best) < LEAST_ALIKE) return null;
  // The smallest distance of which it is a whole multiple, where the picture is as much alike.
  for (let lag = SHORTEST; lag < best; lag += 1) {
    const times = Math.round(best / lag);
    const near = Math.abs(best / times - lag) <= 1;
    if (times > 1 && near && isPeak(alike, lag) && alike(lag) > NEARLY * alike(best))
      return { length: refined(alike, lag, most), alike: alike(lag) };
  }
  return { length: refined(alike, best, most), alike: alike(best) };
}

/** A period read off its furthest multiple, step by step: an error there is as much smaller. */
function refined(alike: (lag: number) => number, lag: number, most: number): number {
  let length = peakAt(alike, lag);
  for (let times = 2; times * length + 2 < most; times += 1) {
    const middle = Math.round(times * length);
    const near = [middle - 1, middle, middle + 1].find((one) => isPeak(alike, one));
    if (near === undefined || alike(near) < LEAST_ALIKE) break;
    length = peakAt(alike, near) / times;
  }
  return length;
}

const isPeak = (alike: (lag: number) => number, lag: number): boolean =>
  alike(lag) > alike(lag - 1) && alike(lag) >= alike(lag + 1);

/** The top of a peak between whole distances, by the parabola through its three values. */
function peakAt(alike: (lag: number) => number, lag: number): number {
  const [before, here, after] = [alike(lag - 1), alike(lag), alike(lag + 1)];
  const bend = before - 2 * here + after;
  return bend >= 0 ? lag : lag + (0.5 * (before - after)) / bend;
}

/** Rec. 709 luma, less what changes slowly: the mean over an eighth of the longer side. */
function lightOf({ width, height, data }: Raster): Float64Array {
  const luma = Float64Array.from(
    { length: width * height },
    (_, at) => 0.2126 * data[at * 4]! + 0.7152 * data[at * 4 + 1]! + 0.0722 * data[at * 4 + 2]!,
  );
  const reach = Math.max(SHORTEST, Math.round(Math.max(width, height) / 8));
  const slow = boxed(boxed(luma, width, height, reach, 1), height, width, reach, width);
  return luma.map((value, at) => value - slow[at]!);
}

/** The mean of what lies within `reach` of each value, along rows (`step` 1) or columns (`step` the width of a row). */
function boxed(
  values: Float64Array,
  length: number,
  rows: number,
  reach: number,
  step: number,
): Float64Array {
  const out = new Float64Array(values.length);
  const across = step === 1 ? length : 1;
  for (let row = 0; row < rows; row += 1) {
    const from = row * across;
    let sum = 0;
    let count = 0;
    for (let at = 0; at < Math.min(reach, length); at += 1) {
      sum += values[from + at * step]!;
      count += 1;
    }
    for (let at = 0; at < length; at += 1) {
      if (at + reach < length) {
        sum += values[from + (at + reach) * step]!;
        count += 1;
      }
      if (at - reach - 1 >= 0) {
        sum -= values[from + (at - reach - 1) * step]!;
        count -= 1;
      }
      out[from + at * step] = sum / count;
    }
  }
  return out;
}

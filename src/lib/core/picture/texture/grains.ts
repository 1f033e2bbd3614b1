import type { Size } from '../../lattice/size';
import { clamp } from '../../num/tolerance';
import { direction, Fractal, grainOf, lot, runsOf, spreadOf } from './noise';

/** What a texture asks of its numbers. */
export type Numbers = (key: string) => number;

/** A texture's greys, 0 to 255 a pixel. */
export type Greys = Uint8Array;

/** Grain drawn out along a direction: two runs one after the other, so that a stroke fades at its ends. */
export function brushed(size: Size, seed: number, of: Numbers): Greys {
  const count = Math.max(1, Math.round(of('length') / 2));
  const along = direction(of('angle'));
  const grain = grainOf(size, seed);
  const strokes = runsOf(runsOf(grain, size, count, along), size, count, along);
  const strength = (of('grain') * 90) / spreadOf(strokes);
  const fine = of('fine') * 0.8;
  const out = new Uint8Array(grain.length);
  for (let at = 0; at < out.length; at += 1)
    out[at] = byte(127.5 + strength * strokes[at]! + fine * grain[at]!);
  return out;
}

/** A sheet lit from the upper left, with fibres in it. */
export function paper(size: Size, seed: number, of: Numbers): Greys {
  const { width, height } = size;
  const rough = of('rough');
  const sheet = new Fractal(size, seed, { width: rough, height: rough }, 0.65, 4);
  const heights = new Float32Array(width * height);
  const row = new Float64Array(width);
  for (let y = 0; y < height; y += 1) {
    sheet.row(y, row);
    for (let x = 0; x < width; x += 1)
      heights[y * width + x] = row[x]! * rough * 0.16 + lot(x, y, seed + 7) * 0.5;
  }
  fibres(heights, size, seed, of('fibres'), of('fibre'));
  const relief = of('relief') * 110;
  const out = new Uint8Array(heights.length);
  for (let y = 0; y < height; y += 1) {
    const above = (y === 0 ? height - 1 : y - 1) * width;
    for (let x = 0; x < width; x += 1) {
      const left = x === 0 ? width - 1 : x - 1;
      const here = heights[y * width + x]!;
      const slope = here - (heights[above + x]! + heights[y * width + left]!) / 2;
      out[y * width + x] = byte(205 + relief * slope);
    }
  }
  return out;
}

/** Lays short bent threads onto a sheet, so many to a square of 100 px. */
function fibres(
  heights: Float32Array,
  { width, height }: Size,
  seed: number,
  many: number,
  length: number,
): void {
  const count = Math.round((width * height * many) / 10_000);
  for (let index = 0; index < count; index += 1) {
    let [x, y] = [lot(index, 1, seed) * width, lot(index, 2, seed) * height];
    let turn = lot(index, 3, seed) * 360;
    const bend = (lot(index, 4, seed) - 0.5) * 6;
    const steps = Math.round(length * (0.4 + 0.6 * lot(index, 5, seed)));
    for (let step = 0; step < steps; step += 1) {
      const at = (Math.floor(y) % height) * width + (Math.floor(x) % width);
      heights[at] = heights[at]! + 0.8;
      const along = direction(turn);
      x = (x + along.x + width) % width;
      y = (y + along.y + height) % height;
      turn += bend;
    }
  }
}

/** Noise at several sizes. */
export function cloud(size: Size, seed: number, of: Numbers): Greys {
  const span = of('size');
  const noise = new Fractal(size, seed, { width: span, height: span }, of('detail'), 7);
  const contrast = 150 * of('contrast');
  const row = new Float64Array(size.width);
  return rows(size, (y) => {
    noise.row(y, row);
    return (x) => 127.5 + contrast * row[x]!;
  });
}

/** Veins where a bent noise goes through nothing, over a cloud. */
export function marble(size: Size, seed: number, of: Numbers): Greys {
  const span = of('size');
  const cell = { width: span, height: span };
  const veins = new Fractal(size, seed, cell, 0.5, 4);
  const more = new Fractal(size, seed + 1, { width: span / 2.7, height: span / 2.7 }, 0.5, 3);
  const bendX = new Fractal(size, seed + 2, cell, 0.5, 4);
  const bendY = new Fractal(size, seed + 3, cell, 0.5, 4);
  const clouds = new Fractal(size, seed + 4, { width: span * 1.4, height: span * 1.4 }, 0.6, 5);
  const [width, bend, soft] = [of('vein') * 0.35 + 0.012, of('bend') * span * 0.8, of('cloud') * 70];
  const [across, down, over] = [0, 1, 2].map(() => new Float64Array(size.width)) as Three;
  return rows(size, (y) => {
    bendX.row(y, across);
    bendY.row(y, down);
    clouds.row(y, over);
    return (x) => {
      const u = x + bend * across[x]!;
      const v = y + bend * down[x]!;
      const cloudy = over[x]!;
      // A vein is strong in some places and goes out in others.
      const strength = clamp(0.55 + cloudy, 0, 1);
      const thick = ridge(veins.near(u, v, width), width) * strength;
      const thin = ridge(more.near(u, v, width * 0.35), width * 0.35) * 0.5 * (1 - strength * 0.5);
      return 228 + soft * (cloudy - 0.2) - 190 * (thick > thin ? thick : thin);
    };
  });
}

type Three = [Float64Array, Float64Array, Float64Array];

/** 1 where a value is nothing, falling to 0 at `width` from it, and where it is no number. */
function ridge(value: number, width: number): number {
  const far = (value < 0 ? -value : value) / width;
  return far < 1 ? (1 - far) * (1 - far) : 0;
}

/** Rings cut along the grain, which runs upright: a slow rise to dark late wood and a quick fall, with pores. */
export function wood(size: Size, seed: number, of: Numbers): Greys {
  const { width, height } = size;
  const rings = Math.max(1, Math.round(width / of('ring')));
  const tall = { width: Math.max(16, width / 4), height: Math.max(32, height / 1.5) };
  const bend = new Fractal(size, seed, tall, 0.45, 4);
  const uneven = new Fractal(size, seed + 1, { width: of('ring') * 1.7, height: height * 2 }, 0.5, 2);
  const along = direction(90);
  const pores = runsOf(grainOf(size, seed + 2), size, 24, along);
  const fine = runsOf(grainOf(size, seed + 3), size, 120, along);
  const [bends, dark, holes] = [of('bend') * rings * 0.35, of('contrast') * 170, of('pores')];
  const [bent, own] = [new Float64Array(width), new Float64Array(width)];
  return rows(size, (y) => {
    bend.row(y, bent);
    uneven.row(y, own);
    return (x) => {
      const place = (x / width) * rings + bends * bent[x]! + 0.35 * own[x]!;
      const within = place - Math.floor(place);
      // The fall takes an eighth of a ring.
      const late = within > 0.875 ? (1 - within) * 8 : within / 0.875;
      const at = y * width + x;
      const pore = pores[at]! > 620 ? 1 : 0;
      const streak = fine[at]! / (120 * 12);
      return (
        222 - dark * late * late * (0.4 + 0.6 * late) - holes * (60 * pore * (0.5 + late / 2) + 14 * streak)
      );
    };
  });
}

/** A grey for each pixel of a picture, row by row. */
export function rows({ width, height }: Size, rowOf: (y: number) => (x: number) => number): Greys {
  const out = new Uint8Array(width * height);
  for (let y = 0; y < height; y += 1) {
    const grey = rowOf(y);
    for (let x = 0; x < width; x += 1) out[y * width + x] = byte(grey(x));
  }
  return out;
}

/** Rounded to a whole number from 0 to 255. */
export const byte = (value: number): number =>
  value <= 0 ? 0 : value >= 255 ? 255 : Math.floor(value + 0.5);

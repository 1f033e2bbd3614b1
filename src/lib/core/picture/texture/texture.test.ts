import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { describe, expect, it } from 'vitest';
import type { Raster } from '../../raster/composite';
import { resample } from '../../raster/resample';
import {
  freshTexture,
  smallerTexture,
  TEXTURE_KINDS,
  textureAsset,
  type TextureKind,
} from '../../recipe/texture';
import { sampleCubic } from '../patch';
import { ownPeriod } from '../period';
import { makeTexture } from './make';
import { direction, Fractal, grainOf, hash, Noise, runsOf } from './noise';

const made = (
  kind: TextureKind,
  width: number,
  height: number,
  numbers: Record<string, number> = {},
): Raster => {
  const fresh = freshTexture(kind);
  return makeTexture({ ...fresh, width, height, numbers: { ...fresh.numbers, ...numbers } });
};
const greysOf = ({ data }: Raster): number[] => Array.from(data.filter((_, at) => at % 4 === 0));
const deviation = (values: readonly number[]): number => {
  const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
  return Math.sqrt(values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / values.length);
};

/** Greys averaged over three by three pixels: what is seen from a little further off. */
function soft({ width, height, data }: Raster): number[] {
  const at = (x: number, y: number): number =>
    data[(((y + height) % height) * width + ((x + width) % width)) * 4]!;
  return Array.from({ length: width * height }, (_, pixel) => {
    const [x, y] = [pixel % width, Math.floor(pixel / width)];
    let sum = 0;
    for (let dy = -1; dy <= 1; dy += 1) for (let dx = -1; dx <= 1; dx += 1) sum += at(x + dx, y + dy);
    return sum / 9;
  });
}

/** The correlation of two rows of values (Pearson 1895). */
function likeness(one: readonly number[], other: readonly number[]): number {
  const mean = (all: readonly number[]): number => all.reduce((sum, value) => sum + value, 0) / all.length;
  const [a, b] = [mean(one), mean(other)];
  const product = one.reduce((sum, value, at) => sum + (value - a) * (other[at]! - b), 0) / one.length;
  return product / (deviation(one) * deviation(other));
}

/** What each kind came to when it was written: a change of one byte is another engine version. */
const BYTES: Record<TextureKind, string> = {
  brushed: 'e59e54f24e50c666',
  paper: 'fa58cf51616afe33',
  linen: 'ee2a2012b51cca8e',
  twill: 'f5f7fae07164c2f2',
  terrazzo: '7060b5f8aafcf5d5',
  speckle: '13813340dd23a4f5',
  cloud: '204ec26daa1965c9',
  marble: 'bd8806ae806493e5',
  wood: '4a3cfaac6eee9d24',
};

describe('a texture', () => {
  it.each(TEXTURE_KINDS)('of the same numbers has the same bytes everywhere: %s', (kind) => {
    expect(bytesToHex(sha256(made(kind, 96, 72).data)).slice(0, 16)).toBe(BYTES[kind]);
  });

  it.each(TEXTURE_KINDS)('repeats by itself at any size: %s', (kind) => {
    for (const [width, height] of [
      [301, 187],
      [160, 256],
    ] as const) {
      const greys = greysOf(made(kind, width, height, kind === 'terrazzo' ? { chip: 30 } : {}));
      const worstBy = (all: readonly number[]): number => all.at(-1)! / Math.max(...all.slice(0, -1));
      /** How much changes from one column, or row, to the next; the last one is next to the first. */
      const steps = (lines: number, along: number, at: (line: number, place: number) => number): number[] =>
        Array.from({ length: lines }, (_, line) => {
          const step = (place: number): number =>
            (greys[at((line + 1) % lines, place)]! - greys[at(line, place)]!) ** 2;
          return Array.from({ length: along }, (_own, place) => step(place)).reduce(
            (sum, value) => sum + value,
            0,
          );
        });
      for (const all of [
        steps(width, height, (x, y) => y * width + x),
        steps(height, width, (y, x) => y * width + x),
      ])
        expect(worstBy(all)).toBeLessThan(1.25);
    }
  });

  it('that does not repeat is found by that: a part of one has a step at its edge', () => {
    const whole = made('cloud', 240, 160, { size: 60 });
    const column = (x: number): number[] =>
      Array.from({ length: 160 }, (_, y) => whole.data[(y * 240 + x) * 4]!);
    const step = (one: number[], other: number[]): number =>
      one.reduce((sum, value, y) => sum + (value - other[y]!) ** 2, 0);
    const inner = Array.from({ length: 149 }, (_, x) => step(column(x), column(x + 1)));
    expect(step(column(149), column(0)) / Math.max(...inner)).toBeGreaterThan(4);
  });

  it.each(['cloud', 'marble', 'wood', 'linen', 'twill', 'terrazzo', 'paper'] as const)(
    'seen smaller is the same one smaller: %s',
    (kind) => {
      const large = { ...freshTexture(kind, 640), height: 480 };
      const small = makeTexture(smallerTexture(large, 160));
      const shrunk = resample(makeTexture(large), 160, 120, 'wrap');
      expect([small.width, small.height]).toEqual([160, 120]);
      const [one, other] = [small, shrunk].map(soft) as [number[], number[]];
      expect(likeness(one, other)).toBeGreaterThan(kind === 'paper' ? 0.3 : 0.75);
    },
  );

  it('of one stone that is larger than itself is that stone everywhere', () => {
    const fresh = freshTexture('terrazzo');
    const numbers = { chip: 1000, filled: 1, gap: 0, small: 0 };
    for (let seed = 0; seed < 300; seed += 1) {
      const greys = greysOf(makeTexture({ ...fresh, width: 16, height: 20, seed, numbers }));
      expect([seed, new Set(greys).size]).toEqual([seed, 1]);
    }
  });

  it('has another name for other numbers, and none for numbers that it has not', () => {
    const fresh = freshTexture('brushed');
    const name = textureAsset(fresh);
    expect(textureAsset({ ...fresh, seed: 2 })).not.toBe(name);
    expect(textureAsset({ ...fresh, numbers: { ...fresh.numbers, angle: 1 } })).not.toBe(name);
    expect(textureAsset({ ...fresh, numbers: { ...fresh.numbers, other: 1 } })).toBe(name);
  });
});

describe('brushed', () => {
  /** The direction in which a picture is most like itself 24 px further on, degrees. */
  const axisOf = (picture: Raster): number => {
    const { width, height } = picture;
    const there = new Float64Array(4);
    const likeness = (degrees: number): number => {
      const { x: dx, y: dy } = direction(degrees);
      let sum = 0;
      for (let y = 30; y < height - 30; y += 2)
        for (let x = 30; x < width - 30; x += 2) {
          sampleCubic(picture, x + 0.5 + 24 * dx, y + 0.5 + 24 * dy, there);
          sum += (picture.data[(y * width + x) * 4]! - 127.5) * (there[0]! - 127.5);
        }
      return sum;
    };
    const all = Array.from({ length: 180 }, (_, degrees) => likeness(degrees));
    return all.indexOf(Math.max(...all));
  };

  it.each([0, 30, 45, 90, 120])('runs in the direction that was asked for: %s°', (angle) => {
    const axis = axisOf(made('brushed', 256, 256, { angle, length: 80, fine: 0 }));
    expect(Math.min(Math.abs(axis - angle), 180 - Math.abs(axis - angle))).toBeLessThan(2);
  });

  it('has the contrast that was asked for, however long its strokes are', () => {
    for (const length of [2, 40, 300]) {
      const greys = greysOf(made('brushed', 400, 400, { length, grain: 0.3, fine: 0, angle: 0 }));
      expect(deviation(greys) / 27).toBeGreaterThan(0.9);
      expect(deviation(greys) / 27).toBeLessThan(1.1);
    }
  });

  it('sums runs by doubling as one by one, over the edges', () => {
    const size = { width: 23, height: 17 };
    const grain = grainOf(size, 4);
    for (const count of [1, 2, 7, 12, 40])
      for (const along of [
        { x: 1, y: 0 },
        { x: 0, y: -1 },
      ]) {
        const runs = runsOf(grain, size, count, along);
        const [x, y] = [20, 3];
        let sum = 0;
        for (let step = 0; step < count; step += 1)
          sum += grain[((y + along.y * step + 17 * 9) % 17) * 23 + ((x + along.x * step) % 23)]!;
        expect(runs[y * 23 + x]).toBe(sum);
      }
  });
});

describe('what textures are made of', () => {
  it('directions are those of the circle', () => {
    for (let degrees = -400; degrees < 400; degrees += 7.3) {
      const { x, y } = direction(degrees);
      expect(x).toBeCloseTo(Math.cos((degrees * Math.PI) / 180), 8);
      expect(y).toBeCloseTo(Math.sin((degrees * Math.PI) / 180), 8);
    }
  });

  it('lots are even, and neighbours have nothing to do with each other', () => {
    const counts = new Array<number>(16).fill(0);
    let [sum, product] = [0, 0];
    for (let at = 0; at < 40_000; at += 1) {
      const one = hash(at % 200, Math.floor(at / 200), 3);
      counts[one >>> 28]! += 1;
      const value = one / 2 ** 32 - 0.5;
      sum += value * value;
      product += value * (hash((at % 200) + 1, Math.floor(at / 200), 3) / 2 ** 32 - 0.5);
    }
    // χ² of 15 degrees of freedom: 30.6 is met in one of a hundred (Pearson 1900).
    expect(counts.reduce((total, count) => total + (count - 2500) ** 2 / 2500, 0)).toBeLessThan(30.6);
    expect(Math.abs(product / sum)).toBeLessThan(0.02);
  });

  it('noise repeats after whole cells, is nothing at their corners, and is one thing row by row as place by place', () => {
    const noise = new Noise(5, 3, 8);
    expect(noise.at(1.3, 0.4)).toBeCloseTo(noise.at(6.3, 3.4), 12);
    expect(noise.at(2, 1)).toBeCloseTo(0, 12);
    const fractal = new Fractal({ width: 64, height: 40 }, 2, { width: 20, height: 20 }, 0.6);
    const row = fractal.row(13, new Float64Array(64));
    // No number only where it lies further from nought than was asked for.
    row.forEach((value, x) => {
      const near = fractal.near(x, 13, 0.2);
      if (Number.isNaN(near)) expect(Math.abs(value)).toBeGreaterThan(0.2);
    });
    row.forEach((value, x) => expect(value).toBeCloseTo(fractal.near(x, 13, Infinity), 12));
  });
});

it('linen has whole threads of the width that was asked for', () => {
  const period = ownPeriod(made('linen', 320, 240, { thread: 10, uneven: 0 }));
  expect(period.across?.length).toBeCloseTo(20, 0);
  expect(period.down?.length).toBeCloseTo(20, 0);
});

it('terrazzo has flat greys: one for each chip, and its ground', () => {
  const greys = new Set(greysOf(made('terrazzo', 300, 300, { chip: 30 })));
  expect([...greys].sort((one, other) => one - other)).toEqual([0, 64, 128, 192, 255]);
});

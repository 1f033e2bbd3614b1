import { describe, expect, it } from 'vitest';
import { pixelOf, rasterOf } from '../../../../tests/support/rasters';
import { seededRandom } from '../num/random';
import type { Raster } from '../raster/composite';
import type { CutOut, CutStroke } from '../recipe/cut-out';
import { piecesAt, piecesOf } from './matte-edges';
import { channelOf, channelsOf, cutOut, edgeColour, matteOf, partsBest, suggestCut } from './matte';

const RED = [200, 40, 60];
const GREEN = [70, 130, 60];
/** How much of a pixel a disc about (30, 28) covers, its edge smooth over a pixel. */
const disc = (x: number, y: number, radius: number): number =>
  Math.max(0, Math.min(1, radius - Math.hypot(x + 0.5 - 30, y + 0.5 - 28) + 0.5));
/** A red flower with a green eye on grass; edges are mixtures. */
const flower = rasterOf(64, 56, (x, y) => {
  const share = disc(x, y, 18) - disc(x, y, 5);
  return RED.map((value, channel) => GREEN[channel]! + (value - GREEN[channel]!) * share);
});
const suggested = suggestCut(flower, channelsOf(flower, edgeColour(flower)), edgeColour(flower));
const cut = (over: Partial<CutOut>): CutOut => ({ ...suggested, feather: 0, ...over });

describe('a threshold', () => {
  it('parts as well as the best of all that were tried (Otsu 1979)', () => {
    const random = seededRandom(2);
    const values = Uint8Array.from({ length: 500 }, () =>
      Math.round((random() < 0.4 ? 60 : 170) + (random() - 0.5) * 70),
    );
    const between = (threshold: number): number => {
      const [low, high] = [
        values.filter((value) => value <= threshold),
        values.filter((value) => value > threshold),
      ];
      if (low.length === 0 || high.length === 0) return 0;
      const mean = (all: Uint8Array): number => all.reduce((sum, value) => sum + value, 0) / all.length;
      return (low.length / 500) * (high.length / 500) * (mean(low) - mean(high)) ** 2;
    };
    const best = Math.max(...Array.from({ length: 255 }, (_, threshold) => between(threshold)));
    const mean = values.reduce((sum, value) => sum + value, 0) / 500;
    const variance = values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / 500;
    const found = partsBest(values);
    expect(between(found.threshold)).toBeCloseTo(best, 8);
    expect(found.share).toBeCloseTo(best / variance, 8);
  });

  it('of channels that part alike takes the one whose classes are furthest apart, with levels that leave neither half', () => {
    // Lightness tells these two colours apart by a little, red by much.
    const sign = rasterOf(40, 40, (x, y) => (Math.hypot(x - 20, y - 20) < 9 ? [220, 60, 90] : [60, 120, 60]));
    const by = suggestCut(sign, channelsOf(sign, '#3c783c'), '#3c783c');
    expect(['red', 'colour']).toContain(by.channel);
    for (const channel of ['light', 'green', 'blue'] as const) {
      const near = suggestCut(
        sign,
        channelsOf(sign, '#3c783c').filter((one) => one.channel === channel),
        '#3c783c',
      );
      const matte = matteOf(sign, { ...near, feather: 0 });
      expect([channel, matte[20 * 40 + 20], matte[0]]).toEqual([channel, 255, 0]);
    }
  });

  it('of two values is between them, and parts them wholly', () => {
    const { threshold, share } = partsBest(Uint8Array.from([10, 10, 200, 200, 200]));
    // In the middle, as far from one as from the other: levels about it leave neither half.
    expect([threshold, share]).toEqual([104, 1]);
  });
});

describe('a subject', () => {
  it('is found by the channel that parts it best, with what touches the edges left out', () => {
    const { channel, inverted } = suggested;
    expect(['red', 'green', 'colour']).toContain(channel);
    const matte = matteOf(flower, cut({}));
    expect([matte[28 * 64 + 18], matte[2 * 64 + 2]]).toEqual([255, 0]);
    // The other way round it is the grass that stays.
    const other = matteOf(flower, cut({ inverted: !inverted }));
    expect([other[28 * 64 + 18], other[2 * 64 + 2]]).toEqual([0, 255]);
  });

  it('covers what it covered, edge and all', () => {
    const matte = matteOf(flower, cut({ channel: 'red', inverted: false, black: 70, white: 200 }));
    const kept = matte.reduce((sum, value) => sum + value / 255, 0);
    expect(Math.abs(kept / (Math.PI * (18 ** 2 - 5 ** 2)) - 1)).toBeLessThan(0.01);
  });

  it('has its holes filled, and its outer edge left as it is', () => {
    const open = matteOf(flower, cut({}));
    const closed = matteOf(flower, cut({ holes: true }));
    expect([open[28 * 64 + 30], closed[28 * 64 + 30]]).toEqual([0, 255]);
    for (let x = 0; x < 64; x += 1) {
      const far = Math.abs(Math.hypot(x + 0.5 - 30, 0.5) - 18);
      if (far < 1) expect(closed[28 * 64 + x]).toBe(open[28 * 64 + x]);
    }
  });

  it('has its edge moved by whole pixels', () => {
    const reach = (shift: number): number => {
      const matte = matteOf(flower, cut({ holes: true, shift }));
      return Array.from({ length: 64 }, (_, x) => matte[28 * 64 + x]!).filter((value) => value > 127).length;
    };
    const own = reach(0);
    expect([reach(3), reach(-3)]).toEqual([own + 6, own - 6]);
  });

  it('has a soft edge as wide as asked, its middle where it was', () => {
    const hard = matteOf(flower, cut({ holes: true, shift: 0 }));
    const soft = matteOf(flower, cut({ holes: true, feather: 8 }));
    const area = (matte: Uint8Array): number => matte.reduce((sum, value) => sum + value / 255, 0);
    expect(Math.abs(area(soft) / area(hard) - 1)).toBeLessThan(0.02);
    const between = (matte: Uint8Array): number =>
      Array.from({ length: 30 }, (_, x) => matte[28 * 64 + x]!).filter((value) => value > 0 && value < 255)
        .length;
    expect(between(soft)).toBeGreaterThan(between(hard) + 8);
  });

  it('has edges of its own colour, not of the grass behind it', () => {
    const levels = { channel: 'red', inverted: false, black: 70, white: 200 } as const;
    const made = cutOut(flower, cut({ ...levels, clean: true }))!;
    const mixed = cutOut(flower, cut({ ...levels, clean: false }))!;
    const rim = (one: typeof made): number[] =>
      Array.from({ length: 64 * 56 }, (_, at) => pixelOf(one.picture as Raster, at % 64, Math.floor(at / 64)))
        .filter(([, , , alpha = 0]) => alpha > 0 && alpha < 250)
        .map(([red = 0]) => red);
    expect(rim(made).length).toBeGreaterThan(0);
    expect(rim(made).every((red) => red > 195)).toBe(true);
    expect(rim(mixed).some((red) => red < 195)).toBe(true);
    expect(made.box).toMatchObject({ width: 36, height: 36 });
  });

  it('is nothing where all is left out', () => {
    expect(cutOut(flower, cut({ channel: 'blue', inverted: false, black: 250, white: 255 }))).toBeNull();
  });

  it('is one piece of several where that was pressed, its soft edge with it', () => {
    const two = rasterOf(100, 50, (x, y) => {
      const share = Math.max(
        Math.min(1, Math.max(0, 12.5 - Math.hypot(x - 25, y - 25))),
        Math.min(1, Math.max(0, 9.5 - Math.hypot(x - 75, y - 25))),
      );
      return RED.map((value, channel) => GREEN[channel]! + (value - GREEN[channel]!) * share);
    });
    const levels = { channel: 'red', inverted: false, black: 70, white: 200, feather: 0 } as const;
    const left = (only: { x: number; y: number }[]): Uint8Array => matteOf(two, cut({ ...levels, only }));
    const [both, one, none] = [left([]), left([{ x: 75, y: 25 }]), left([{ x: 50, y: 25 }])];
    expect([both[25 * 100 + 25], one[25 * 100 + 25], one[25 * 100 + 75]]).toEqual([255, 0, 255]);
    for (let at = 0; at < both.length; at += 1) if (at % 100 > 60) expect(one[at]).toBe(both[at]);
    expect(none.every((value) => value === 0)).toBe(true);
    expect(
      left([
        { x: 75, y: 25 },
        { x: 25, y: 25 },
      ]),
    ).toEqual(both);
  });

  it('by its distance from a colour is parted from that', () => {
    const far = channelOf(flower, 'colour', '#46823c');
    expect(far[2 * 64 + 2]).toBe(0);
    expect(far[28 * 64 + 18]).toBeGreaterThan(100);
  });
});

describe('a brush on a matte', () => {
  const stroke = (over: Partial<CutStroke>): CutStroke => ({
    ...{ mode: 'restore', edges: false, size: 12, softness: 0, strength: 1 },
    points: [30, 28, 30, 28],
    ...over,
  });
  const plain = matteOf(flower, cut({}));

  it('takes away and gives back what lies under it, and nothing beside it', () => {
    const eye = matteOf(flower, cut({ strokes: [stroke({})] }));
    expect([plain[28 * 64 + 30], eye[28 * 64 + 30]]).toEqual([0, 255]);
    const gone = matteOf(flower, cut({ strokes: [stroke({ mode: 'erase', points: [18, 28] })] }));
    expect([plain[28 * 64 + 18], gone[28 * 64 + 18]]).toEqual([255, 0]);
    plain.forEach((value, pixel) => {
      const [x, y] = [(pixel % 64) + 0.5, Math.floor(pixel / 64) + 0.5];
      if (Math.hypot(x - 30, y - 28) > 7) expect(eye[pixel]).toBe(value);
      if (Math.hypot(x - 18, y - 28) > 7) expect(gone[pixel]).toBe(value);
    });
  });

  it('may paint out the very place that a piece was picked at: the piece stays', () => {
    const only = [{ x: 18, y: 28 }];
    const bite = [stroke({ mode: 'erase', points: [18, 28], size: 6 })];
    const kept = matteOf(flower, cut({ only, strokes: bite }));
    expect([kept[28 * 64 + 18], kept[28 * 64 + 40]]).toEqual([0, 255]);
    // All of it painted out, nothing else takes its place.
    const gone = matteOf(flower, cut({ only, strokes: [stroke({ mode: 'erase', size: 60 })] }));
    expect(gone.every((value) => value === 0)).toBe(true);
  });

  it('that keeps to edges pushes light and dark apart: what is left out stays so', () => {
    const soft = cut({ black: 0, white: 255 });
    const before = matteOf(flower, soft);
    const over = { edges: true, size: 90, points: [32, 28] };
    const pushed = matteOf(flower, { ...soft, strokes: [stroke(over)] });
    const pulled = matteOf(flower, { ...soft, strokes: [stroke({ ...over, mode: 'erase' })] });
    before.forEach((value, pixel) => {
      expect(pushed[pixel]).toBe(Math.min(255, 2 * value));
      expect(pulled[pixel]).toBe(Math.max(0, 2 * value - 255));
    });
    expect(before.some((value) => value > 0 && value < 255)).toBe(true);
  });

  it('lies in px of the picture, however small the picture at hand is', () => {
    const small = rasterOf(32, 28, (x, y) => [...pixelOf(flower, 2 * x, 2 * y)]);
    const by = cut({ strokes: [stroke({ mode: 'erase', points: [18, 28], size: 10 })] });
    const matte = matteOf(small, by, 0.5);
    expect([matte[14 * 32 + 9], matte[14 * 32 + 22]]).toEqual([0, 255]);
  });
});

describe('the pieces of a matte', () => {
  const size = { width: 30, height: 20 };
  /** Three rectangles: 8 × 6, 10 × 10 and 2 × 2 px. */
  const matte = Uint8Array.from({ length: 600 }, (_, at) => {
    const [x, y] = [at % 30, Math.floor(at / 30)];
    const within = (left: number, top: number, wide: number, high: number): boolean =>
      x >= left && x < left + wide && y >= top && y < top + high;
    return within(1, 1, 8, 6) || within(15, 5, 10, 10) || within(2, 14, 2, 2) ? 255 : 0;
  });

  it('are the largest first, each with a pixel in its middle and its share', () => {
    const [first, second, third] = piecesOf(matte, size, 9);
    expect([first!.share, second!.share, third!.share].map((share) => share * 600)).toEqual([100, 48, 4]);
    expect(Math.abs(first!.x - 19.5) + Math.abs(first!.y - 9.5)).toBeLessThanOrEqual(1);
    expect(Math.abs(second!.x - 4.5) + Math.abs(second!.y - 3.5)).toBeLessThanOrEqual(1);
    expect(piecesOf(matte, size, 2)).toHaveLength(2);
  });

  it('hold the places that were picked in them, or nearest to them, as keeping does', () => {
    const places = [
      { x: 16, y: 6 },
      { x: 9.5, y: 3 },
      { x: 29, y: 0 },
      { x: 24.9, y: 14.9 },
    ];
    const pieces = piecesOf(matte, size, 9, places);
    expect(pieces.map(({ holds }) => holds)).toEqual([[0, 3], [1], []]);
    const kept = piecesAt(matte, size, [places[1]!]);
    expect([kept[3 * 30 + 4], kept[10 * 30 + 20]]).toEqual([255, 0]);
  });
});

import { describe, expect, it } from 'vitest';
import { noisePicture, pixelOf, rasterOf, texture } from '../../../../tests/support/rasters';
import { seededRandom } from '../num/random';
import type { Raster } from '../raster/composite';
import type { Join, JoinKind } from '../recipe/pictured';
import { joinDown, leastCut, membrane, transposed } from './join';

const join = (how: JoinKind, feather = 0): Join => ({
  on: true,
  how,
  band: 0,
  feather,
  times: 2,
  seed: 1,
});

/** Every path through a small band, a step of at most one row at a time. */
function* paths(length: number, high: number, begun: number[] = []): Generator<number[]> {
  if (begun.length === length) return yield begun;
  const last = begun.at(-1);
  for (let row = 0; row < high; row += 1)
    if (last === undefined || Math.abs(row - last) <= 1) yield* paths(length, high, [...begun, row]);
}

describe('the cheapest cut', () => {
  it.each([false, true])('is the least of all paths that there are; closed: %s', (closed) => {
    const random = seededRandom(8);
    for (let round = 0; round < 40; round += 1) {
      const [length, high] = [7, 4];
      const cost = Float64Array.from({ length: length * high }, () => Math.floor(random() * 100));
      const sum = (path: readonly number[]): number =>
        path.reduce((all, row, along) => all + cost[along * high + row]!, 0);
      const least = Math.min(
        ...[...paths(length, high)]
          .filter((path) => !closed || Math.abs(path[0]! - path.at(-1)!) <= 1)
          .map(sum),
      );
      const found = Array.from(leastCut(cost, length, high, closed));
      expect(sum(found)).toBe(least);
      expect(found.every((row, along) => along === 0 || Math.abs(row - found[along - 1]!) <= 1)).toBe(true);
      if (closed) expect(Math.abs(found[0]! - found.at(-1)!)).toBeLessThanOrEqual(1);
    }
  });
});

/** Gaussian elimination. */
function solve(matrix: number[][], right: number[]): number[] {
  const rows = matrix.map((row, index) => [...row, right[index]!]);
  const size = rows.length;
  for (let column = 0; column < size; column += 1) {
    let pivot = column;
    for (let row = column; row < size; row += 1)
      if (Math.abs(rows[row]![column]!) > Math.abs(rows[pivot]![column]!)) pivot = row;
    [rows[column], rows[pivot]] = [rows[pivot]!, rows[column]!];
    for (let row = 0; row < size; row += 1) {
      if (row === column) continue;
      const factor = rows[row]![column]! / rows[column]![column]!;
      for (let at = column; at <= size; at += 1) rows[row]![at]! -= factor * rows[column]![at]!;
    }
  }
  return rows.map((row, index) => row[size]! / row[index]!);
}

describe('a membrane', () => {
  it.each([true, false])(
    'is what a dense solver finds for the five-point Laplace equation on 16 × 16; closed: %s',
    (closed) => {
      const size = 16;
      const random = seededRandom(2);
      const edge = Float64Array.from({ length: size }, () => random() * 40 - 20);
      const depth = size;
      // Unknown are the rows 1 … depth − 1; row 0 is given, row `depth` is 0.
      const name = (x: number, y: number): number => (y - 1) * size + x;
      const count = size * (depth - 1);
      const matrix = Array.from({ length: count }, () => new Array<number>(count).fill(0));
      const right = new Array<number>(count).fill(0);
      for (let y = 1; y < depth; y += 1)
        for (let x = 0; x < size; x += 1) {
          const own = matrix[name(x, y)]!;
          own[name(x, y)]! -= 4;
          const side = (to: number): number =>
            closed ? (to + size) % size : Math.max(0, Math.min(size - 1, to));
          own[name(side(x - 1), y)]! += 1;
          own[name(side(x + 1), y)]! += 1;
          if (y > 1) own[name(x, y - 1)]! += 1;
          else right[name(x, y)]! -= edge[x]!;
          if (y < depth - 1) own[name(x, y + 1)]! += 1;
        }
      const dense = solve(matrix, right);
      const layers = membrane(edge, depth, closed);
      for (let x = 0; x < size; x += 1) expect(layers[0]![x]!).toBeCloseTo(edge[x]!, 10);
      for (let y = 1; y < depth; y += 1)
        for (let x = 0; x < size; x += 1) expect(layers[y]![x]!).toBeCloseTo(dense[name(x, y)]!, 9);
    },
  );
});

const MARGIN = 12;
const from = (extended: Raster, x: number, y: number): number[] => pixelOf(extended, x, y + MARGIN);

describe('joining the lower edge to the upper one', () => {
  const extended = texture(60, 70 + 2 * MARGIN, 3);
  const [width, height] = [60, 70];

  it.each(
    (['fade', 'cut', 'level'] as const).flatMap((how) => [0, 17].map((shift) => [how, shift] as const)),
  )('touches nothing beyond the band, to the bit: %s, shifted by %i', (how, shift) => {
    const made = joinDown(
      { picture: extended, margin: MARGIN, shift, closed: true },
      join(how, 4),
      2 * MARGIN,
    );
    expect([made.width, made.height]).toEqual([width, height]);
    let touched = 0;
    for (let y = 0; y < height; y += 1)
      for (let x = 0; x < width; x += 1) {
        const same = pixelOf(made, x, y).join() === from(extended, x, y).join();
        if (y >= MARGIN && y < height - MARGIN) expect(same).toBe(true);
        else if (!same) touched += 1;
      }
    expect(touched).toBeGreaterThan(200);
  });

  it('with a hard cut takes each pixel from one of the two, and neighbours across the joint from the same', () => {
    const shift = 17;
    const made = joinDown(
      { picture: extended, margin: MARGIN, shift, closed: true },
      join('cut'),
      2 * MARGIN,
    );
    for (let x = 0; x < width; x += 1) {
      const below = (x - shift + width) % width;
      for (let down = -MARGIN; down < MARGIN; down += 1) {
        const seen = down < 0 ? pixelOf(made, x, height + down) : pixelOf(made, below, down);
        const [a, b] = [from(extended, x, height + down), from(extended, below, down)];
        expect([a.join(), b.join()]).toContain(seen.join());
      }
    }
  });

  it('by a fade keeps the variance of noise, which a plain average does not', () => {
    const noise = noisePicture(400, 200 + 2 * 40, 6);
    const made = joinDown({ picture: noise, margin: 40, shift: 0, closed: true }, join('fade'), 80);
    const variance = (rows: readonly number[], value: (x: number, y: number) => number): number => {
      const all = rows.flatMap((y) => Array.from({ length: 400 }, (_, x) => value(x, y)));
      const mean = all.reduce((sum, one) => sum + one, 0) / all.length;
      return all.reduce((sum, one) => sum + (one - mean) ** 2, 0) / all.length;
    };
    const band = Array.from({ length: 80 }, (_, at) => (160 + at) % 200);
    const middle = Array.from({ length: 80 }, (_, at) => 60 + at);
    const seen = (x: number, y: number): number => pixelOf(made, x, y)[0]!;
    const kept = variance(band, seen) / variance(middle, seen);
    expect(Math.abs(kept - 1)).toBeLessThan(0.02);
    const plain = variance(band, (x, y) => {
      const down = y >= 160 ? y - 200 : y;
      const ours = (down + 40.5) / 80;
      return pixelOf(noise, x, 40 + 200 + down)[0]! * (1 - ours) + pixelOf(noise, x, 40 + down)[0]! * ours;
    });
    expect(plain / variance(middle, seen)).toBeLessThan(0.75);
  });

  it('by levelling makes the step at the joint the one that the picture itself goes on with', () => {
    const slope = rasterOf(40, 60 + 2 * MARGIN, (x, y) => [40 + y * 2, 60 + x, 90]);
    const made = joinDown(
      { picture: slope, margin: MARGIN, shift: 0, closed: true },
      join('level'),
      2 * MARGIN,
    );
    for (let x = 0; x < 40; x += 1)
      expect(Math.abs(pixelOf(made, x, 0)[0]! - pixelOf(made, x, 59)[0]!)).toBeLessThanOrEqual(3);
  });

  it('is the same the other way round when rows become columns', () => {
    const turned = transposed(transposed(extended));
    expect(turned.data).toEqual(extended.data);
    expect(pixelOf(transposed(extended), 5, 9)).toEqual(pixelOf(extended, 9, 5));
  });
});

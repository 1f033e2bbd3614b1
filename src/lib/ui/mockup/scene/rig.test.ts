import { Vector3 } from 'three';
import { describe, expect, it } from 'vitest';
import { onFloor, RAYS, raysOf } from './rig';

const SETTINGS = ['window', 'even'] as const;
/** What a matt surface that faces somewhere gets from all rays: the cosine law of Lambert. */
const falls = (setting: (typeof SETTINGS)[number], round: number, out: Vector3): number =>
  raysOf(setting, round).reduce(
    (sum, { towards, light }) => sum + light[1] * Math.max(0, towards.dot(out)),
    0,
  );
const mean = (rounds: number, of: (round: number) => number): number =>
  Array.from({ length: rounds }, (_one, round) => of(round)).reduce((sum, one) => sum + one, 0) / rounds;

describe.each(SETTINGS)('the light of the setting “%s”', (setting) => {
  it('comes from so many directions above the floor, each of length one', () => {
    for (let round = 0; round < 24; round += 1) {
      const rays = raysOf(setting, round);
      expect(rays).toHaveLength(RAYS);
      for (const { towards, light } of rays) {
        expect(towards.length()).toBeCloseTo(1, 9);
        expect(towards.y).toBeGreaterThan(0);
        expect(Math.min(...light)).toBeGreaterThan(0);
      }
    }
  });

  // Fails where the first round is turned any way: upright faces were 12 % darker while one turned them than at rest.
  it('is as strong in the first round as in all together, so that a picture keeps its brightness as it grows finer', () => {
    const ways = [
      [0, 0, 1],
      [0, 1, 0],
      [1, 0, 1],
      [-1, 0, 1],
    ] as const;
    for (const out of ways.map((way) => new Vector3(...way).normalize())) {
      const first = falls(setting, 0, out);
      const all = mean(100, (round) => falls(setting, round + 1, out));
      expect(Math.abs(first / all - 1)).toBeLessThan(0.04);
    }
  });

  it('makes white paper neither black nor burnt out, upright or lying', () => {
    for (const out of [new Vector3(0, 0, 1), new Vector3(0, 1, 0)]) {
      const all = mean(24, (round) => falls(setting, round, out));
      expect(all).toBeGreaterThan(0.45);
      expect(all).toBeLessThan(1.35);
    }
    const floor = onFloor(raysOf(setting, 0));
    expect(floor[1]).toBeCloseTo(falls(setting, 0, new Vector3(0, 1, 0)), 9);
  });

  it('is the same each time for the same round: a still in parts has no joints', () => {
    expect(raysOf(setting, 3)).toEqual(raysOf(setting, 3));
    expect(raysOf(setting, 3)).not.toEqual(raysOf(setting, 4));
  });
});

describe('light from a window', () => {
  it('falls from the left, and light from both sides falls alike from either', () => {
    const [left, right] = [new Vector3(-1, 0, 0), new Vector3(1, 0, 0)];
    const sides = (setting: 'window' | 'even'): number =>
      mean(24, (round) => falls(setting, round, left)) / mean(24, (round) => falls(setting, round, right));
    expect(sides('window')).toBeGreaterThan(1.5);
    expect(Math.abs(sides('even') - 1)).toBeLessThan(0.08);
  });
});

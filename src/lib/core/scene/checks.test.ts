import { describe, expect, it } from 'vitest';
import { block, dot, drawing, place, recipe } from '../../../../tests/support/recipes';
import { seededRandom } from '../num/random';
import { latticeVector } from '../lattice/repeat';
import { widestGap } from './gap';
import { scatter } from './scatter';
import { THINNEST_LINE, thinPieces } from './thin';
import { findTouches } from './touch';
import { compileUnit } from './unit';

describe('the widest gap', () => {
  it('of one dot in a square lies in the middle of four', () => {
    const scene = compileUnit(recipe({ motifs: [dot('d', 40)], placings: [place('d', 50, 50)] }));
    const gap = widestGap(scene);
    expect(gap?.radius).toBeCloseTo(50 * Math.SQRT2 - 20, 0);
    expect((gap?.at.x ?? 0) % 100).toBeCloseTo(0, 0);
  });

  // Brute force on a fine grid, over all discs of the 3 × 3 units round the point: an independent search, with wrap.
  it.each([1, 2, 3, 4])('of random discs is what brute force finds (%d)', (seed) => {
    const random = seededRandom(seed);
    const discs = Array.from({ length: 9 }, () => ({
      x: random() * 100,
      y: random() * 80,
      r: 3 + random() * 7,
    }));
    const of = recipe({
      unit: { width: 100, height: 80 },
      repeat: { kind: 'brick', step: 0.3, run: 'progressive' },
      motifs: discs.map((disc, index) => dot(`d${index}`, disc.r * 2)),
      placings: discs.map((disc, index) => place(`d${index}`, disc.x, disc.y)),
    });
    const scene = compileUnit(of);
    const gap = widestGap(scene);
    let best = 0;
    for (let x = 0; x < 100; x += 0.5)
      for (let y = 0; y < 80; y += 0.5) {
        let least = Infinity;
        for (let i = -2; i <= 2; i += 1)
          for (let j = -2; j <= 2; j += 1) {
            const by = latticeVector(scene.lattice, i, j);
            for (const disc of discs)
              least = Math.min(least, Math.hypot(x - disc.x - by.x, y - disc.y - by.y) - disc.r);
          }
        best = Math.max(best, least);
      }
    // A disc is measured as a polygon of 48 sides, which lies up to 0.2 % of its radius inside it; the grid's step is 0.5.
    expect(gap?.radius).toBeGreaterThan(best - 0.02);
    expect(gap?.radius).toBeLessThan(best + 0.5);
  });

  it('is none where the ink leaves nothing open', () => {
    expect(
      widestGap(compileUnit(recipe({ motifs: [block('b', 100, 100)], placings: [place('b', 50, 50)] }))),
    ).toBe(null);
    expect(widestGap(compileUnit(recipe()))).toBe(null);
  });
});

describe('pieces that touch', () => {
  it('are found over the edge of the unit, each pair once', () => {
    const of = recipe({ motifs: [block('b', 20, 20)], placings: [place('b', 5, 50), place('b', 86, 50)] });
    const touches = findTouches(compileUnit(of), 1);
    expect(touches).toHaveLength(1);
    expect(touches[0]?.distance).toBe(0);
  });

  it('are told from pieces that nearly touch and from those that stay clear', () => {
    const pair = (x: number) =>
      findTouches(
        compileUnit(recipe({ motifs: [dot('d', 20)], placings: [place('d', 20, 50), place('d', x, 50)] })),
        1.5,
      );
    expect(pair(41)[0]?.distance).toBeCloseTo(1, 1);
    expect(pair(45)).toEqual([]);
  });

  it('count a piece that reaches its own copy', () => {
    const of = recipe({ motifs: [block('b', 104, 10)], placings: [place('b', 50, 50)] });
    expect(findTouches(compileUnit(of), 0.1)).toHaveLength(1);
  });

  it('see crossing strokes whose ends are far apart', () => {
    const cross = drawing('x', 'M-20 -1H20V1H-20Z');
    const of = recipe({
      motifs: [cross],
      placings: [place('x', 50, 50), place('x', 50, 50, { id: 'y', rotation: 90 })],
    });
    expect(findTouches(compileUnit(of), 0.1)[0]?.distance).toBe(0);
  });
});

describe('thin lines', () => {
  it('are those under a quarter point after all scaling', () => {
    const of = recipe({
      motifs: [block('b', 10, 0.4)],
      placings: [place('b', 50, 50), place('b', 20, 20, { id: 's', scaleX: 0.5, scaleY: 0.5 })],
    });
    expect(THINNEST_LINE).toBeCloseTo(1 / 3, 10);
    expect(thinPieces(compileUnit(of))).toEqual([{ piece: 's', width: expect.closeTo(0.2, 9) }]);
  });
});

describe('scatter', () => {
  const base = recipe({
    unit: { width: 400, height: 300 },
    motifs: [dot('d', 20), block('b', 30, 8)],
    placings: [],
  });
  const plan = {
    motifs: ['d', 'b'],
    count: 60,
    seed: 5,
    spacing: 3,
    size: { from: 0.6, to: 1.2 },
    angle: { from: 0, to: 180 },
  };
  let next = 0;
  const newId = (): string => `s${next++}`;

  it('lays pieces that keep their distance everywhere on the plane', () => {
    const { placings, missed } = scatter(base, plan, newId);
    expect(placings.length + missed).toBe(60);
    expect(placings.length).toBeGreaterThan(50);
    const nearest = findTouches(compileUnit({ ...base, placings }), 2.9);
    expect(nearest).toEqual([]);
  });

  it('lays the same pieces for the same seed, others for another', () => {
    const places = (seed: number): number[] =>
      scatter(base, { ...plan, seed }, newId).placings.map(({ x }) => x);
    expect(places(5)).toEqual(places(5));
    expect(places(5)).not.toEqual(places(6));
  });

  it('keeps clear of what is there already and says what found no room', () => {
    const full = {
      ...base,
      motifs: [...base.motifs, block('wall', 396, 240)],
      placings: [place('wall', 200, 150)],
    };
    const { placings, missed } = scatter(full, plan, newId);
    expect(missed).toBeGreaterThan(0);
    expect(findTouches(compileUnit({ ...full, placings: [...full.placings, ...placings] }), 2.9)).toEqual([]);
  });
});

import { describe, expect, it } from 'vitest';
import { applyVector, compose } from '../geom/affine';
import { freshFill, type PatternFill } from '../recipe/fill';
import { wholeRepeats } from '../recipe/fit';
import { seededRandom } from '../num/random';
import { latticeOf } from './repeat';
import { nearestPeriod, periodAlong, wholeFit } from './span';

const NO_GAP = { across: 0, down: 0 };

describe('whole repeats over a length', () => {
  it('are the count whose scaling is least, against trying every count', () => {
    const random = seededRandom(31);
    for (let trial = 0; trial < 400; trial++) {
      const span = 1 + random() * 2000;
      const period = 0.5 + random() * 500;
      let best = 1;
      const cost = (count: number): number => Math.abs(Math.log(span / (count * period)));
      for (let count = 2; count < 5000; count++) if (cost(count) < cost(best)) best = count;
      const fit = wholeFit(span, period);
      expect(fit.count).toBe(best);
      expect(fit.count * period * fit.factor).toBeCloseTo(span, 9);
    }
  });

  it('of a tile of 3 in on a page of 25 in are 8, a twenty-fourth larger', () => {
    expect(wholeFit(25 * 96, 3 * 96)).toEqual({ count: 8, factor: 25 / 24 });
  });

  it('never come to none', () => {
    expect(wholeFit(10, 1000).count).toBe(1);
  });
});

describe('the periods of a lattice', () => {
  const brick = latticeOf({ width: 60, height: 20 }, NO_GAP, {
    kind: 'brick',
    step: 1 / 3,
    run: 'progressive',
  });

  it('close a third brick after three rows, and nowhere along an odd angle', () => {
    expect(periodAlong(brick, { x: 1, y: 0 })).toBeCloseTo(60, 9);
    expect(periodAlong(brick, { x: 0, y: 1 })).toBeCloseTo(60, 9);
    expect(periodAlong(brick, { x: 20, y: 20 })).toBeCloseTo(Math.hypot(20, 20), 9);
    expect(periodAlong(brick, { x: 1, y: Math.SQRT2 / 7 })).toBeNull();
  });

  it('nearest to a point are those that trying all finds', () => {
    const random = seededRandom(5);
    for (let trial = 0; trial < 200; trial++) {
      const a = { x: 5 + random() * 20, y: random() * 40 - 20 };
      const b = { x: random() * 40 - 20, y: 5 + random() * 20 };
      if (Math.abs(a.x * b.y - a.y * b.x) < 40) continue;
      const point = { x: random() * 200 - 100, y: random() * 200 - 100 };
      let least = Infinity;
      for (let i = -150; i <= 150; i++)
        for (let j = -150; j <= 150; j++)
          least = Math.min(least, Math.hypot(i * a.x + j * b.x - point.x, i * a.y + j * b.y - point.y));
      const found = nearestPeriod({ a, b }, point);
      expect(Math.hypot(found.x - point.x, found.y - point.y)).toBeCloseTo(least, 9);
    }
  });
});

describe('a fill over a shape', () => {
  const lattice = latticeOf({ width: 60, height: 20 }, NO_GAP, {
    kind: 'brick',
    step: 0.5,
    run: 'progressive',
  });
  const fill: PatternFill = { ...freshFill('f', 'p'), scaleX: 0.55, scaleY: 0.55 };
  const shape = { width: 400, height: 116, rotation: 0 };

  it('spans each side in whole repeats', () => {
    const across = wholeRepeats(shape, fill, lattice, 'across');
    expect(across?.counts).toEqual([12]);
    expect(across?.scaleX).toBeCloseTo(400 / 720, 12);
    const both = wholeRepeats(shape, fill, lattice, 'both');
    expect(both?.counts).toEqual([12, 5]);
    expect(both?.scaleY).toBeCloseTo(116 / 200, 12);
    const quarter = wholeRepeats(shape, { ...fill, rotation: 90 }, lattice, 'both');
    expect((quarter?.scaleY ?? 0) * 40 * (quarter?.counts[0] ?? 0)).toBeCloseTo(400, 9);
    expect((quarter?.scaleX ?? 0) * 60 * (quarter?.counts[1] ?? 0)).toBeCloseTo(116, 9);
  });

  it('turned at any angle closes along the side, with the numbers it is given', () => {
    const random = seededRandom(8);
    for (let trial = 0; trial < 60; trial++) {
      const askew = { ...fill, rotation: random() * 360 - 180, skew: trial % 2 ? random() * 20 : 0 };
      const tilted = { ...shape, rotation: random() * 90 };
      const fit = wholeRepeats(tilted, askew, lattice, 'turned across');
      if (!fit) throw new Error('nothing fits');
      const laid = compose({ ...askew, ...fit });
      const radians = (tilted.rotation * Math.PI) / 180;
      const end = { x: Math.cos(radians) * 400, y: Math.sin(radians) * 400 };
      const reached = nearestPeriod(
        { a: applyVector(laid, lattice.a), b: applyVector(laid, lattice.b) },
        end,
      );
      expect(Math.hypot(reached.x - end.x, reached.y - end.y)).toBeLessThan(1e-6);
      expect(Math.abs(fit.scaleX / fill.scaleX - 1)).toBeLessThan(0.08);
    }
  });

  it('has no straight way where it lies at an odd angle, and none past the limits of scale', () => {
    expect(wholeRepeats(shape, { ...fill, rotation: 17 }, lattice, 'across')).toBeNull();
    expect(
      wholeRepeats(
        { ...shape, width: 200_000 },
        { ...fill, scaleX: 999, scaleY: 999 },
        { a: { x: 150, y: 0 }, b: lattice.b },
        'across',
      ),
    ).toBeNull();
  });
});

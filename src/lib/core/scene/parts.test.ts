import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { IDENTITY, rotation, translation } from '../geom/affine';
import { parsePath, type Path } from '../geom/path';
import { rectanglePath } from '../geom/shapes';
import type { Point } from '../geom/point';
import { FRONT, type Lattice } from '../lattice/repeat';
import type { Stroke } from '../recipe/recipe';
import { elementEdges } from './edges';
import { boxOfEndless, endlessOver, type Endless } from './endless';
import { groundOfRecipe } from './ground';
import {
  distanceToSegment,
  inkDistance,
  inkOf,
  insideInk,
  motifReach,
  moveInk,
  segmentDistance,
  segmentsOf,
  type Ink,
} from './ink';
import { plainElement } from './motif';

const pathOf = (d: string): Path => {
  const read = parsePath(d);
  if (!read.ok) throw new Error(read.message);
  return read.path;
};

const stroke = (width: number, over: Partial<Stroke> = {}): Stroke => ({
  ...{ slot: 'ink', width, cap: 'butt', join: 'miter', miterLimit: 4, dashes: [] },
  ...over,
});

const block = (x: number, y: number, width: number, height: number, half = 0): Ink => ({
  rings: [
    {
      closed: true,
      points: [
        { x, y },
        { x: x + width, y },
        { x: x + width, y: y + height },
        { x, y: y + height },
      ],
    },
  ],
  filled: true,
  rule: 'nonzero',
  half,
});

describe('the ink of a piece', () => {
  it('is its outline through the matrix of its placing, with half of the stroke as it is drawn', () => {
    const element = plainElement(rectanglePath(10, 4, 0), { stroke: stroke(2) });
    const [ink] = inkOf({ elements: [element], matrix: { a: 3, b: 0, c: 0, d: 3, e: 100, f: 0 } });
    expect(ink?.half).toBe(3);
    expect(ink?.filled).toBe(false);
    const xs = ink?.rings.flatMap(({ points }) => points.map(({ x }) => x)) ?? [];
    expect([Math.min(...xs), Math.max(...xs)]).toEqual([100, 130]);
    expect(inkOf({ elements: [plainElement(rectanglePath(1, 1, 0), {})], matrix: IDENTITY })).toEqual([]);
  });

  it('reaches from the origin to its farthest point, half of the stroke included', () => {
    const line = plainElement(pathOf('M 0 0 L 3 4'), { stroke: stroke(2) });
    expect(motifReach({ elements: [line] })).toBeCloseTo(6, 9);
    expect(motifReach({ elements: [] })).toBe(0);
  });

  it('is where its rule of filling says', () => {
    const ring = (rule: Ink['rule']): Ink => ({
      ...block(0, 0, 30, 30),
      rings: [...block(0, 0, 30, 30).rings, ...block(10, 10, 10, 10).rings],
      rule,
    });
    expect(insideInk(ring('nonzero'), { x: 15, y: 15 })).toBe(true);
    expect(insideInk(ring('evenodd'), { x: 15, y: 15 })).toBe(false);
    expect(insideInk(ring('evenodd'), { x: 5, y: 15 })).toBe(true);
    expect(insideInk({ ...ring('nonzero'), filled: false }, { x: 15, y: 15 })).toBe(false);
  });

  it('closes filled outlines and leaves strokes open', () => {
    const open = pathOf('M 0 0 L 10 0 L 10 10');
    const count = (paint: Parameters<typeof plainElement>[1]): number =>
      segmentsOf(inkOf({ elements: [plainElement(open, paint)], matrix: IDENTITY }), 0).length;
    expect(count({ fill: 'ink' })).toBe(3);
    expect(count({ stroke: stroke(1) })).toBe(2);
  });
});

describe('distances', () => {
  const coordinate = fc.double({ min: -50, max: 50, noNaN: true });
  const point = fc.record({ x: coordinate, y: coordinate });

  it('to a line are the least over its points, tried one by one', () => {
    fc.assert(
      fc.property(point, point, point, (p, from, to) => {
        let least = Infinity;
        for (let step = 0; step <= 400; step += 1) {
          const t = step / 400;
          const x = from.x + t * (to.x - from.x);
          const y = from.y + t * (to.y - from.y);
          least = Math.min(least, Math.hypot(p.x - x, p.y - y));
        }
        const found = distanceToSegment(p, from, to);
        const spacing = Math.hypot(to.x - from.x, to.y - from.y) / 400;
        expect(found).toBeLessThanOrEqual(least + 1e-9);
        expect(found).toBeGreaterThanOrEqual(least - spacing);
      }),
    );
  });

  it('between lines are the same either way, and nothing where they cross', () => {
    fc.assert(
      fc.property(point, point, point, point, (a, b, c, d) => {
        expect(segmentDistance(a, b, c, d)).toBeCloseTo(segmentDistance(d, c, b, a), 9);
      }),
    );
    expect(segmentDistance({ x: 0, y: 0 }, { x: 9, y: 9 }, { x: 0, y: 9 }, { x: 9, y: 0 })).toBe(0);
  });

  it('between inks are from rim to rim, with the strokes, and nothing where one lies in the other', () => {
    expect(inkDistance([block(0, 0, 10, 10)], [block(14, 13, 5, 5)])).toBeCloseTo(5, 9);
    expect(inkDistance([block(0, 0, 10, 10, 1)], [block(14, 13, 5, 5, 0.5)])).toBeCloseTo(3.5, 9);
    expect(inkDistance([block(0, 0, 10, 10)], [block(4, 4, 2, 2)])).toBe(0);
    expect(inkDistance([block(4, 4, 2, 2)], [block(0, 0, 10, 10)])).toBe(0);
    expect(inkDistance([block(0, 0, 10, 10)], [])).toBe(Infinity);
    const moved = moveInk(block(0, 0, 10, 10), { x: 30, y: 0 });
    expect(inkDistance([block(0, 0, 10, 10)], [moved])).toBeCloseTo(20, 9);
  });
});

describe('strokes without an end', () => {
  const lattice = (turn = 0): Lattice => {
    const { a, b, c, d } = rotation(turn);
    return {
      a: { x: 20 * a, y: 20 * b },
      b: { x: 30 * c, y: 30 * d },
      copies: [{ x: 0, y: 0 }],
      oneRow: true,
      front: FRONT,
    };
  };
  const region: Point[] = [
    { x: 100, y: 100 },
    { x: 200, y: 100 },
    { x: 200, y: 200 },
    { x: 100, y: 200 },
  ];
  const line = (d: string, width = 4, join: Stroke['join'] = 'miter'): Endless => ({
    element: plainElement(pathOf(d), { stroke: stroke(width, { join }) }),
    along: 'a',
  });

  it('run through the region in one piece to a row, every row that inks it once', () => {
    const rows = endlessOver([line('M 0 15 L 20 15')], lattice(), region);
    // Rows lie 30 px apart, 4 px thick: those whose middles are at 105, 135, 165 and 195.
    expect(rows.map(({ path }) => (path[0]?.op === 'M' ? path[0].to.y : null))).toEqual([105, 135, 165, 195]);
    for (const { path } of rows) {
      expect(path).toHaveLength(2);
      const [start, end] = path;
      if (start?.op !== 'M' || end?.op !== 'L') throw new Error('not one line');
      expect(start.to.x).toBeLessThanOrEqual(100);
      expect(end.to.x).toBeGreaterThanOrEqual(200);
    }
  });

  it('go on where the last period ended, whichever way the lattice is turned', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 359 }), (turn) => {
        const turned = lattice(turn);
        const { a } = turned;
        const wave = line(`M 0 0 L ${a.x / 2 + 3} ${a.y / 2} L ${a.x} ${a.y}`);
        for (const { path } of endlessOver([wave], turned, region)) {
          expect(path.filter(({ op }) => op === 'M')).toHaveLength(1);
          const points = path.flatMap((segment) => ('to' in segment ? [segment.to] : []));
          for (let at = 2; at < points.length; at += 2) {
            expect(points[at]!.x - points[at - 2]!.x).toBeCloseTo(a.x, 9);
            expect(points[at]!.y - points[at - 2]!.y).toBeCloseTo(a.y, 9);
          }
        }
      }),
      { numRuns: 40 },
    );
  });

  it('lie row over row, and within a row as they are listed', () => {
    const first = line('M 0 0 L 20 0');
    const second = line('M 0 10 L 20 10');
    const rows = endlessOver([first, second], lattice(), region);
    expect(rows.map(({ element }) => (element === first.element ? 1 : 2)).join('')).toMatch(/^2?(12)+1?$/);
  });

  it('have a box that their pointed corners stay in, and none without ink', () => {
    expect(boxOfEndless(line('M 0 0 L 10 9 L 20 0', 4))).toEqual({ x: -8, y: -8, width: 36, height: 25 });
    expect(boxOfEndless(line('M 0 0 L 20 0', 4, 'round'))).toEqual({ x: -2, y: -2, width: 24, height: 4 });
    const bare: Endless = { element: plainElement(pathOf('M 0 0 L 20 0'), {}), along: 'a' };
    expect(boxOfEndless(bare)).toBeNull();
    expect(endlessOver([bare], lattice(), region)).toEqual([]);
  });
});

describe('edges that could abut', () => {
  const inwardOf = (d: string): string[] =>
    elementEdges(plainElement(pathOf(d), { fill: 'ink' }), IDENTITY, 0).map(
      ({ from, to, inward }) => `${from.x},${from.y} ${to.x},${to.y} in ${inward.x + 0},${inward.y + 0}`,
    );

  it('point into the piece, whichever way its outline runs', () => {
    expect(inwardOf('M 0 0 L 10 0 L 10 10 L 0 10 Z')).toContain('0,0 10,0 in 0,1');
    expect(inwardOf('M 0 0 L 0 10 L 10 10 L 10 0 Z')).toContain('10,0 0,0 in 0,1');
  });

  it('point away from a hole', () => {
    const hole = inwardOf('M 0 0 L 30 0 L 30 30 L 0 30 Z M 10 10 L 10 20 L 20 20 L 20 10 Z');
    expect(hole).toContain('20,10 10,10 in 0,-1');
    expect(hole).toHaveLength(8);
  });

  it('of a straight stroke are its four sides, as wide as it is drawn', () => {
    const bar = plainElement(pathOf('M 0 0 L 10 0'), { stroke: stroke(2) });
    const edges = elementEdges(bar, { ...translation(5, 5), a: 2, d: 2 }, 3);
    expect(edges).toHaveLength(4);
    expect(new Set(edges.map(({ piece, paint }) => `${piece} ${paint}`))).toEqual(new Set(['3 ink']));
    const ys = edges.flatMap(({ from, to }) => [from.y, to.y]);
    expect([Math.min(...ys), Math.max(...ys)]).toEqual([3, 7]);
    const middle = { x: 15, y: 5 };
    for (const { from, inward } of edges)
      expect((middle.x - from.x) * inward.x + (middle.y - from.y) * inward.y).toBeGreaterThan(0);
  });

  it('are none where a line under them would show, or where the end is not straight', () => {
    const path = rectanglePath(10, 10, 0);
    const none = (element: ReturnType<typeof plainElement>): void =>
      expect(elementEdges(element, IDENTITY, 0)).toEqual([]);
    none(plainElement(path, { fill: 'ink', opacity: 0.5 }));
    none({ ...plainElement(path, { fill: 'ink' }), clip: { path, rule: 'nonzero' } });
    none(plainElement(pathOf('M 0 0 L 10 0'), { stroke: stroke(2, { cap: 'round' }) }));
    none(plainElement(pathOf('M 0 0 L 10 0'), { stroke: stroke(2, { dashes: [1, 1] }) }));
    none(plainElement(path, { stroke: stroke(2) }));
  });
});

describe('the ground of a recipe', () => {
  const pitch = { width: 40, height: 60 };
  const unit = { width: 30, height: 50 };
  const stops = [
    { at: 0.6, slot: 'ink' },
    { at: 0, slot: 'paper' },
  ];

  it('is nothing, a colour, or a run of colours that ends with the one it began with, a whole pitch long', () => {
    expect(groundOfRecipe({ kind: 'clear' }, pitch, unit)).toBeNull();
    expect(groundOfRecipe({ kind: 'slot', slot: 'ink' }, pitch, unit)?.slot).toBe('ink');
    const down = groundOfRecipe({ kind: 'linear', along: 'down', stops }, pitch, unit);
    expect(down?.gradient?.to).toEqual({ x: 0, y: 60 });
    expect(down?.gradient?.stops.map(({ at }) => at)).toEqual([0, 0.6, 1]);
    expect(down?.gradient?.stops[2]?.slot).toBe(down?.slot);
    expect(groundOfRecipe({ kind: 'linear', along: 'down', stops: [] }, pitch, unit)).toBeNull();
  });

  it('glows from the middle of the unit and fades into the colour of its last stop', () => {
    const glow = groundOfRecipe({ kind: 'radial', radius: 0.4, stops }, pitch, unit);
    expect(glow?.slot).toBe('ink');
    const { x, y, width, height } = glow!.art!.box;
    expect(x).toBeCloseTo(15 - 12, 6);
    expect(y).toBeCloseTo(25 - 12, 6);
    expect(width).toBeCloseTo(24, 6);
    expect(height).toBeCloseTo(24, 6);
  });
});

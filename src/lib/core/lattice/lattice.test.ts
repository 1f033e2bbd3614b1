import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Point } from '../geom/point';
import { cellCorners, cellOf, unitArea } from './cell';
import type { Edge } from './abut';
import { findAbutments } from './underlay';
import { offsetsMeeting, regionOfBox } from './meet';
import { intoUnit } from './reduce';
import { isLatticeVector, latticeOf, latticeVector, type Repeat } from './repeat';

const unit = { width: 100, height: 60 };
const noGap = { across: 0, down: 0 };
const brick = (step: number): Repeat => ({ kind: 'brick', step, run: 'progressive' });

const anyRepeat: fc.Arbitrary<Repeat> = fc.oneof(
  fc.constant<Repeat>({ kind: 'straight' }),
  fc.record({
    kind: fc.constantFrom('brick' as const, 'half-drop' as const),
    step: fc.double({ min: 0, max: 1, noNaN: true }),
    run: fc.constantFrom('progressive' as const, 'alternating' as const),
  }),
);

const key = (points: Point[]): string[] => points.map(({ x, y }) => `${x.toFixed(3)},${y.toFixed(3)}`).sort();

describe('the lattice of a repeat', () => {
  it('counts the gap into the pitch', () => {
    const lattice = latticeOf(unit, { across: 20, down: 5 }, { kind: 'straight' });
    expect(lattice.a).toEqual({ x: 120, y: 0 });
    expect(lattice.b).toEqual({ x: 0, y: 65 });
  });

  // International Tables for Crystallography, vol. A: a centred rectangular cell (c) has its second point at (½, ½).
  it('of a brick with step 1/2 is a centred rectangular cell', () => {
    const lattice = latticeOf(unit, noGap, brick(0.5));
    expect(isLatticeVector(lattice, { x: 50, y: 60 })).toBe(true);
    expect(isLatticeVector(lattice, { x: 0, y: 120 })).toBe(true);
    expect(isLatticeVector(lattice, { x: 0, y: 60 })).toBe(false);
    const drop = latticeOf(unit, noGap, { kind: 'half-drop', step: 0.5, run: 'progressive' });
    expect(isLatticeVector(drop, { x: 100, y: 30 })).toBe(true);
    expect(isLatticeVector(drop, { x: 200, y: 0 })).toBe(true);
  });

  it('shifts every row further, or back and forth', () => {
    const third = latticeOf(unit, noGap, brick(1 / 3));
    expect(isLatticeVector(third, { x: 200 / 3, y: 120 })).toBe(true);
    const swing = latticeOf(unit, noGap, { kind: 'brick', step: 0.25, run: 'alternating' });
    expect(isLatticeVector(swing, { x: 0, y: 120 })).toBe(true);
    expect(isLatticeVector(swing, { x: 50, y: 120 })).toBe(false);
    expect(swing.copies).toEqual([
      { x: 0, y: 0 },
      { x: 25, y: 60 },
    ]);
  });

  // Common practice, no source: a centred piece shifted by half the unit each way lands on the four corners.
  it('brings a piece shifted by half a unit each way to the four corners', () => {
    const square = latticeOf({ width: 600, height: 600 }, noGap, { kind: 'straight' });
    const piece = { x: 550, y: 550, width: 100, height: 100 };
    const offsets = offsetsMeeting(square, piece, regionOfBox({ x: 0, y: 0, width: 600, height: 600 }));
    const middles = offsets.map(({ x, y }) => ({ x: 600 + x, y: 600 + y }));
    expect(key(middles)).toEqual(
      key([
        { x: 0, y: 0 },
        { x: 600, y: 0 },
        { x: 0, y: 600 },
        { x: 600, y: 600 },
      ]),
    );
  });

  // Common practice, no source: a piece cut by one edge needs its twin exactly one unit away.
  it('brings a piece cut at one edge back exactly one unit away', () => {
    const wide = latticeOf({ width: 1000, height: 400 }, noGap, { kind: 'straight' });
    const offsets = offsetsMeeting(
      wide,
      { x: -40, y: 100, width: 90, height: 50 },
      regionOfBox({ x: 0, y: 0, width: 1000, height: 400 }),
    );
    expect(offsets).toEqual([
      { x: 0, y: 0 },
      { x: 1000, y: 0 },
    ]);
  });

  it('finds just the offsets that brute force finds', () => {
    fc.assert(
      fc.property(
        anyRepeat,
        fc.double({ min: 0, max: 360, noNaN: true }),
        fc.double({ min: -300, max: 300, noNaN: true }),
        (repeat, turn, at) => {
          const lattice = latticeOf(unit, { across: 7, down: 11 }, repeat);
          const box = { x: 13, y: -21, width: 47, height: 33 };
          const radians = (turn * Math.PI) / 180;
          const region = regionOfBox({ x: -150, y: -90, width: 300, height: 180 }).map(({ x, y }) => ({
            x: at + x * Math.cos(radians) - y * Math.sin(radians),
            y: x * Math.sin(radians) + y * Math.cos(radians),
          }));
          const found = offsetsMeeting(lattice, box, region);
          const all: Point[] = [];
          for (let i = -16; i <= 16; i += 1)
            for (let j = -16; j <= 16; j += 1)
              for (const copy of lattice.copies) {
                const vector = latticeVector(lattice, i, j);
                const offset = { x: vector.x + copy.x, y: vector.y + copy.y };
                if (meets(region, { ...box, x: box.x + offset.x, y: box.y + offset.y })) all.push(offset);
              }
          expect(key(found)).toEqual(key(all));
        },
      ),
      { numRuns: 60 },
    );
  });

  it('draws in one order everywhere: the order is the same after a shift by a lattice vector', () => {
    const lattice = latticeOf(unit, noGap, brick(0.3));
    const box = { x: 0, y: 0, width: 130, height: 90 };
    const shift = latticeVector(lattice, 4, -3);
    const here = offsetsMeeting(lattice, box, regionOfBox({ x: 0, y: 0, width: 200, height: 150 }));
    const there = offsetsMeeting(
      lattice,
      box,
      regionOfBox({ x: shift.x, y: shift.y, width: 200, height: 150 }),
    );
    expect(there.map(({ x, y }) => `${(x - shift.x).toFixed(6)},${(y - shift.y).toFixed(6)}`)).toEqual(
      here.map(({ x, y }) => `${x.toFixed(6)},${y.toFixed(6)}`),
    );
  });
});

describe('the cell of an SVG pattern', () => {
  it('is spanned by lattice vectors and holds a whole number of units', () => {
    fc.assert(
      fc.property(anyRepeat, (repeat) => {
        const gap = { across: 3, down: 4 };
        const lattice = latticeOf(unit, gap, repeat);
        const cell = cellOf(unit, gap, repeat);
        const [, across, , down] = cellCorners(cell);
        expect(isLatticeVector(lattice, across ?? { x: 0.5, y: 0 })).toBe(true);
        expect(isLatticeVector(lattice, down ?? { x: 0.5, y: 0 })).toBe(true);
        const { a, b, c, d } = cell.matrix;
        const area = cell.width * cell.height * Math.abs(a * d - b * c);
        expect(area / unitArea(lattice)).toBeCloseTo(cell.units, 6);
      }),
    );
  });

  it('is two rows for a brick of 1/2, three for 1/3, and skewed for an odd step', () => {
    expect(cellOf(unit, noGap, brick(0.5))).toMatchObject({ width: 100, height: 120, units: 2 });
    expect(cellOf(unit, noGap, brick(1 / 3))).toMatchObject({ height: 180, units: 3 });
    expect(cellOf(unit, noGap, brick(0.3719))).toMatchObject({ height: 60, units: 1 });
  });
});

describe('a point brought into the unit', () => {
  it('lies in the unit, a lattice vector from where it was', () => {
    fc.assert(
      fc.property(
        anyRepeat,
        fc.double({ min: -900, max: 900, noNaN: true }),
        fc.double({ min: -900, max: 900, noNaN: true }),
        (repeat, x, y) => {
          const lattice = latticeOf(unit, noGap, repeat);
          const place = intoUnit(lattice, unit, { x, y });
          expect(place.x).toBeGreaterThan(-1e-5);
          expect(place.x).toBeLessThan(100 + 1e-5);
          expect(place.y).toBeGreaterThan(-1e-5);
          expect(place.y).toBeLessThan(60 + 1e-5);
        },
      ),
    );
  });
});

describe('abutting edges', () => {
  const box = { x: 0, y: 0, width: 100, height: 60 };
  const side = (from: Point, to: Point, inward: Point): Edge => ({
    from,
    to,
    inward,
    piece: 0,
    paint: 'ink',
  });
  const block = [
    side({ x: 0, y: 0 }, { x: 100, y: 0 }, { x: 0, y: 1 }),
    side({ x: 100, y: 0 }, { x: 100, y: 60 }, { x: -1, y: 0 }),
    side({ x: 100, y: 60 }, { x: 0, y: 60 }, { x: 0, y: -1 }),
    side({ x: 0, y: 60 }, { x: 0, y: 0 }, { x: 1, y: 0 }),
  ];

  it('are found once each, and know where they meet', () => {
    const found = findAbutments(block, [box], latticeOf(unit, noGap, { kind: 'straight' }), () => true);
    expect(found).toHaveLength(2);
    expect(found.map(({ runFrom, runTo }) => [runFrom, runTo]).sort()).toEqual([
      [100, 100],
      [60, 60],
    ]);
    expect(found.every(({ alike, room }) => alike && room === Infinity)).toBe(true);
  });

  it('do not run on where none goes on, as at the corner of a woven check', () => {
    // A band across and a band down, each abutting its own copies at its ends: the two lines meet in a corner.
    const across = [
      side({ x: 0, y: 0 }, { x: 0, y: 20 }, { x: 1, y: 0 }),
      side({ x: 100, y: 0 }, { x: 100, y: 20 }, { x: -1, y: 0 }),
    ];
    const down = [
      side({ x: 0, y: 0 }, { x: 20, y: 0 }, { x: 0, y: 1 }),
      side({ x: 0, y: 60 }, { x: 20, y: 60 }, { x: 0, y: -1 }),
    ].map((edge) => ({ ...edge, piece: 1 }));
    const boxes = [
      { x: 0, y: 0, width: 100, height: 20 },
      { x: 0, y: 0, width: 20, height: 60 },
    ];
    const lattice = latticeOf(unit, noGap, { kind: 'straight' });
    const onBand = ({ x, y }: Point): boolean => {
      const place = intoUnit(lattice, unit, { x, y });
      return place.x < 20 || place.y < 20;
    };
    const found = findAbutments([...across, ...down], boxes, lattice, onBand);
    expect(found).toHaveLength(2);
    expect(found.map(({ runFrom, runTo, room }) => [runFrom, runTo, room])).toEqual([
      [0, 0, Infinity],
      [0, 0, Infinity],
    ]);
  });

  it('lie in the colour of what is lower, and run on only below those that are drawn after them', () => {
    // Two columns over each other's copies: ink above ink, and paper above paper, beside each other.
    const column = (x: number, piece: number, paint: string): Edge[] => [
      { ...side({ x, y: 0 }, { x: x + 50, y: 0 }, { x: 0, y: 1 }), piece, paint },
      { ...side({ x, y: 60 }, { x: x + 50, y: 60 }, { x: 0, y: -1 }), piece, paint },
    ];
    const boxes = [0, 50].map((x) => ({ x, y: 0, width: 50, height: 60 }));
    const lattice = latticeOf(unit, noGap, { kind: 'straight' });
    const [first, last] = findAbutments(
      [...column(0, 0, 'ink'), ...column(50, 1, 'paper')],
      boxes,
      lattice,
      () => true,
    );
    expect([first?.paint, first?.runFrom, first?.runTo]).toEqual(['ink', 50, 50]);
    expect([last?.paint, last?.runFrom, last?.runTo]).toEqual(['paper', 0, 0]);
    const across = (x: number, right: boolean, piece: number, paint: string): Edge => ({
      ...side({ x, y: 0 }, { x, y: 60 }, { x: right ? 1 : -1, y: 0 }),
      piece,
      paint,
    });
    const mixed = findAbutments(
      [across(50, false, 0, 'ink'), across(50, true, 1, 'paper')],
      boxes,
      lattice,
      () => true,
    );
    expect(mixed.map(({ paint, alike }) => [paint, alike])).toEqual([['ink', false]]);
  });

  it('are not found across a gap', () => {
    expect(
      findAbutments(block, [box], latticeOf(unit, { across: 1, down: 1 }, { kind: 'straight' }), () => true),
    ).toEqual([]);
  });
});

/** Separating axes again, written for the test alone. */
function meets(region: Point[], box: { x: number; y: number; width: number; height: number }): boolean {
  const corners = regionOfBox(box);
  const edges = [
    ...region.map((p, i) => [p, region[(i + 1) % 4] ?? p] as const),
    ...corners.map((p, i) => [p, corners[(i + 1) % 4] ?? p] as const),
  ];
  return edges.every(([p, q]) => {
    const axis = { x: p.y - q.y, y: q.x - p.x };
    const along = (points: Point[]): number[] => points.map((point) => point.x * axis.x + point.y * axis.y);
    const [one, other] = [along(region), along(corners)];
    return Math.min(...one) <= Math.max(...other) + 1e-4 && Math.min(...other) <= Math.max(...one) + 1e-4;
  });
}

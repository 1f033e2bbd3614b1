import { describe, expect, it } from 'vitest';
import { apply, multiply, type Affine } from '../geom/affine';
import { polygonArea } from '../geom/polygon';
import {
  PLANE_GROUPS,
  asymmetricUnit,
  cellOutline,
  groupOperations,
  latticeKind,
  multiplicity,
  shortSymbol,
  symmetryElements,
  type PlaneGroup,
} from './groups';
import { imagesOf, isLatticeVector, latticeOf, type Repeat } from './repeat';
import { cellCorners, cellOf, unitArea } from './cell';

const unit = { width: 120, height: 80 };
const noGap = { across: 0, down: 0 };
const repeatOf = (group: PlaneGroup): Repeat => ({ kind: 'group', group, slant: 0.2 });

/** International Tables for Crystallography, vol. A, part 6: multiplicity of the general position, lattice, short symbol. */
const TABLES: Record<PlaneGroup, [number, string, string]> = {
  p1: [1, 'oblique', 'p1'],
  p2: [2, 'oblique', 'p2'],
  pm: [2, 'rectangular', 'pm'],
  pg: [2, 'rectangular', 'pg'],
  cm: [4, 'centred rectangular', 'cm'],
  p2mm: [4, 'rectangular', 'pmm'],
  p2mg: [4, 'rectangular', 'pmg'],
  p2gg: [4, 'rectangular', 'pgg'],
  c2mm: [8, 'centred rectangular', 'cmm'],
  p4: [4, 'square', 'p4'],
  p4mm: [8, 'square', 'p4m'],
  p4gm: [8, 'square', 'p4g'],
  p3: [3, 'hexagonal', 'p3'],
  p3m1: [6, 'hexagonal', 'p3m1'],
  p31m: [6, 'hexagonal', 'p31m'],
  p6: [6, 'hexagonal', 'p6'],
  p6mm: [12, 'hexagonal', 'p6m'],
};

describe.each(PLANE_GROUPS)('plane group %s', (group) => {
  const operations = groupOperations(group, unit, 0.2);
  const lattice = latticeOf(unit, noGap, repeatOf(group));

  it('has the multiplicity and the lattice of the International Tables', () => {
    expect([multiplicity(group), latticeKind(group), shortSymbol(group)]).toEqual(TABLES[group]);
    const cellArea = Math.abs(polygonArea(cellOutline(group, unit, 0.2)));
    expect(operations.length * (cellArea / unitArea(lattice))).toBeCloseTo(multiplicity(group), 6);
  });

  it('is closed: any two operations make a third one and a lattice vector', () => {
    const known = (m: Affine): boolean =>
      operations.some(
        (held) =>
          Math.hypot(m.a - held.a, m.b - held.b, m.c - held.c, m.d - held.d) < 1e-9 &&
          isLatticeVector(lattice, { x: m.e - held.e, y: m.f - held.f }),
      );
    for (const m of operations) for (const n of operations) expect(known(multiply(m, n))).toBe(true);
  });

  it('moves nothing nearer or further: every operation keeps lengths and the lattice', () => {
    for (const m of operations) {
      expect(m.a ** 2 + m.b ** 2).toBeCloseTo(1, 9);
      expect(m.c ** 2 + m.d ** 2).toBeCloseTo(1, 9);
      expect(m.a * m.c + m.b * m.d).toBeCloseTo(0, 9);
      for (const vector of [lattice.a, lattice.b])
        expect(isLatticeVector(lattice, apply({ ...m, e: 0, f: 0 }, vector))).toBe(true);
    }
  });

  it('has an asymmetric unit that its operations lay over the plane once', () => {
    const corners = asymmetricUnit(group, unit, 0.2);
    const cellArea = Math.abs(polygonArea(cellOutline(group, unit, 0.2)));
    expect(Math.abs(polygonArea(corners)) * multiplicity(group)).toBeCloseTo(cellArea, 6);
  });

  it('is drawn through a cell of whole lattice vectors', () => {
    const [, across, , down] = cellCorners(cellOf(unit, noGap, repeatOf(group)));
    expect(isLatticeVector(lattice, across ?? { x: 0.5, y: 0.5 })).toBe(true);
    expect(isLatticeVector(lattice, down ?? { x: 0.5, y: 0.5 })).toBe(true);
  });
});

describe('symmetry elements', () => {
  const count = (group: PlaneGroup, what: string): number =>
    symmetryElements(group, unit).filter((element) =>
      element.kind === 'rotation' ? what === String(element.order) : what === element.kind,
    ).length;

  // Counted in the diagrams of the International Tables, edges and corners of the cell included.
  it.each([
    ['p2', '2', 9],
    ['p4mm', '4', 5],
    ['p4mm', '2', 4],
    ['p6mm', '6', 4],
    ['p3', '3', 6],
    ['pm', 'mirror', 3],
    ['pm', 'glide', 0],
    ['pg', 'glide', 3],
    ['pg', 'mirror', 0],
    ['p2gg', 'mirror', 0],
    ['cm', 'mirror', 3],
    ['cm', 'glide', 2],
  ] as const)('of %s: %s', (group, what, expected) => {
    expect(count(group, what)).toBe(expected);
  });
});

describe('a mirrored repeat', () => {
  // Common practice, no source: 1000 × 1000 art mirrored both ways makes a unit of 2000 × 2000 that matches at all edges.
  it('doubles the unit and meets itself at every edge', () => {
    const art = { width: 1000, height: 1000 };
    const lattice = latticeOf(art, noGap, { kind: 'mirror' });
    expect([lattice.a.x, lattice.b.y]).toEqual([2000, 2000]);
    const images = imagesOf(art, noGap, { kind: 'mirror' });
    const point = { x: 123, y: 998 };
    const places = images.map((image) => apply(image, point));
    expect(places).toEqual([
      { x: 123, y: 998 },
      { x: 1877, y: 998 },
      { x: 123, y: 1002 },
      { x: 1877, y: 1002 },
    ]);
  });

  it('keeps its mirror lines in the middle of the gaps', () => {
    const gap = { across: 20, down: 0 };
    const [, mirrored] = imagesOf({ width: 100, height: 100 }, gap, { kind: 'mirror' });
    expect(apply(mirrored as Affine, { x: 110, y: 0 }).x).toBe(110);
    expect(latticeOf({ width: 100, height: 100 }, gap, { kind: 'mirror' }).a.x).toBe(240);
  });
});

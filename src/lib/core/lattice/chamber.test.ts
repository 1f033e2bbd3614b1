import { describe, expect, it } from 'vitest';
import { apply } from '../geom/affine';
import { beyond } from '../geom/half-plane';
import { seededRandom } from '../num/random';
import { chambersOf, hasMirrors } from './chamber';
import { PLANE_GROUPS, groupOperations, symmetryElements, type PlaneGroup } from './groups';
import { isLatticeVector, latticeOf, type Repeat } from './repeat';

const unit = { width: 90, height: 70 };
const noGap = { across: 0, down: 0 };
const repeatOf = (group: PlaneGroup): Repeat => ({ kind: 'group', group, slant: 0.2 });

/** Groups whose diagrams in the International Tables, vol. A, show lines of reflection. */
const MIRRORED = ['pm', 'cm', 'p2mm', 'p2mg', 'c2mm', 'p4mm', 'p4gm', 'p3m1', 'p31m', 'p6mm'];

describe.each(PLANE_GROUPS)('the chambers of plane group %s', (group) => {
  const repeat = repeatOf(group);
  const lattice = latticeOf(unit, noGap, repeat);
  const chamber = chambersOf(unit, noGap, repeat);
  const operations = groupOperations(group, unit, 0.2);
  const random = seededRandom(3);
  const points = Array.from({ length: 40 }, () => ({ x: random() * 400 - 150, y: random() * 400 - 150 }));

  it('exist where the Tables draw lines of reflection', () => {
    expect(hasMirrors(repeat)).toBe(MIRRORED.includes(group));
    expect(chamber !== null).toBe(MIRRORED.includes(group));
  });

  it('hold their point, and end at lines in which the group reflects', () => {
    for (const point of points)
      for (const half of chamber?.(point) ?? []) {
        const far = beyond(half, point);
        expect(far).toBeLessThanOrEqual(0);
        const image = { x: point.x - 2 * far * half.normal.x, y: point.y - 2 * far * half.normal.y };
        const reflects = operations.some((operation) => {
          const to = apply(operation, point);
          const turned = operation.a * operation.d - operation.b * operation.c < 0;
          return turned && isLatticeVector(lattice, { x: image.x - to.x, y: image.y - to.y });
        });
        expect(reflects).toBe(true);
      }
  });

  it('are crossed by no line of reflection', () => {
    const lines = symmetryElements(group, unit, 0.2).filter(({ kind }) => kind === 'mirror');
    const crossed = points.filter((point) => {
      const halves = chamber?.(point) ?? [];
      return lines.some((line) => {
        if (line.kind !== 'mirror') return false;
        const normal = { x: -line.direction.y, y: line.direction.x };
        const at = line.at.x * normal.x + line.at.y * normal.y;
        return halves.some((half) => {
          const along = half.normal.x * normal.x + half.normal.y * normal.y;
          if (Math.abs(Math.abs(along) - 1) > 1e-9) return false;
          const far = (normal.x * point.x + normal.y * point.y - at) * along;
          // Between the point and the bound, and not on the bound itself.
          return -far > 1e-5 && -far < -beyond(half, point) - 1e-5;
        });
      });
    });
    expect(crossed).toEqual([]);
  });
});

describe('the chamber of a mirrored unit', () => {
  it('is the unit with half of its gaps around', () => {
    const halves = chambersOf(unit, { across: 10, down: 4 }, { kind: 'mirror' })!({ x: 20, y: 30 });
    const along = (x: number, y: number): number | undefined =>
      halves.find(({ normal }) => normal.x === x && normal.y === y)?.most;
    expect(
      [along(1, 0), along(-1, 0), along(0, 1), along(0, -1)].map((most) => Number(most?.toFixed(4))),
    ).toEqual([95, 5, 72, 2]);
  });

  it('is on the line that of the unit', () => {
    const [right] = chambersOf(unit, noGap, { kind: 'mirror' })!({ x: 90, y: 30 });
    expect(right!.most).toBeCloseTo(90, 4);
    const [, left] = chambersOf(unit, noGap, { kind: 'mirror' })!({ x: 0, y: 30 });
    expect(left!.most).toBeCloseTo(0, 4);
  });
});

import fc from 'fast-check';
import polygonClipping, { type MultiPolygon } from 'polygon-clipping';
import { describe, expect, it } from 'vitest';
import { areaOf, combineAreas, type Area, type PathOperation } from './boolean';
import { fitFreehand } from './freehand';
import { insertNode, moveHandle, nearestStretch, nodesOf, pathOfNodes, removeNode, setSmooth } from './nodes';
import { strokeOutline, type InkedStroke } from './outline';
import { flatten, formatPath, parsePath, pathBox, type Path } from './path';
import { formPath } from './shapes';
import { pointInSteps, snapAlong, snapAngle } from './snap';
import { strokeBox } from './stroke-box';
import { rotation, translation, chain } from './affine';
import { transformPath } from './path';

const read = (d: string): Path => {
  const parsed = parsePath(d);
  if (!parsed.ok) throw new Error(parsed.message);
  return parsed.path;
};
const area = (path: Path): Area => ({ path, rule: 'nonzero' });
const combined = (operation: PathOperation, ...areas: Area[]): number => {
  const result = combineAreas(operation, areas);
  return result.ok ? areaOf(area(result.path)) : 0;
};

/** A random simple shape: a star-shaped polygon, an ellipse or a rounded rectangle, turned and moved. */
const anyArea = fc
  .record({
    kind: fc.constantFrom('polygon', 'star', 'ellipse', 'rectangle'),
    width: fc.integer({ min: 20, max: 80 }),
    height: fc.integer({ min: 20, max: 80 }),
    turn: fc.integer({ min: 1, max: 358 }),
    x: fc.integer({ min: -30, max: 30 }),
    y: fc.integer({ min: -30, max: 30 }),
  })
  .map(({ kind, width, height, turn, x, y }) => {
    const form =
      kind === 'polygon'
        ? { kind: 'polygon' as const, sides: 5 }
        : kind === 'star'
          ? { kind: 'star' as const, points: 5, inner: 0.45 }
          : kind === 'rectangle'
            ? { kind: 'rectangle' as const, radius: 6 }
            : { kind: 'ellipse' as const };
    return area(
      transformPath(chain(translation(x + 0.13, y + 0.29), rotation(turn)), formPath(form, width, height)),
    );
  });

describe('areas put together', () => {
  // |A ∪ B| = |A| + |B| − |A ∩ B|, |A − B| = |A| − |A ∩ B|, |A ⊕ B| = |A ∪ B| − |A ∩ B|: identities of sets.
  it('obey the identities of their areas', () => {
    fc.assert(
      fc.property(anyArea, anyArea, (a, b) => {
        const [one, other] = [areaOf(a), areaOf(b)];
        const shared = combined('intersect', a, b);
        const near = (value: number, expected: number): void =>
          expect(Math.abs(value - expected) / (one + other)).toBeLessThan(1e-6);
        near(combined('unite', a, b), one + other - shared);
        near(combined('subtract', a, b), one - shared);
        near(combined('exclude', a, b), one + other - 2 * shared);
      }),
      { numRuns: 60, seed: 7 },
    );
  });

  // A second library, polygon-clipping (Martinez, Rueda and Feito), on the same shapes cut into straight pieces.
  it('have the areas that another library finds on flattened paths', () => {
    const straight = (a: Area): Area => area(flatten(a.path, 24).flatMap(({ points }) => polygon(points)));
    const rings = (a: Area): MultiPolygon => [
      flatten(a.path, 1).map(({ points }) => points.map(({ x, y }): [number, number] => [x, y])),
    ];
    const sizeOf = (polygons: MultiPolygon): number =>
      polygons.flat().reduce((sum, ring) => sum + signed(ring), 0);
    fc.assert(
      fc.property(anyArea, anyArea, (first, second) => {
        const [a, b] = [straight(first), straight(second)];
        const whole = areaOf(a) + areaOf(b);
        const theirs = {
          unite: polygonClipping.union(rings(a), rings(b)),
          subtract: polygonClipping.difference(rings(a), rings(b)),
          intersect: polygonClipping.intersection(rings(a), rings(b)),
          exclude: polygonClipping.xor(rings(a), rings(b)),
        };
        for (const operation of ['unite', 'subtract', 'intersect', 'exclude'] as const)
          expect(
            Math.abs(combined(operation, a, b) - Math.abs(sizeOf(theirs[operation]))) / whole,
          ).toBeLessThan(1e-6);
      }),
      { numRuns: 40, seed: 7 },
    );
  });

  it('close open paths and take self-crossing ones as their rule fills them', () => {
    const open = area(read('M0 0H10V10'));
    expect(combined('unite', open, area(read('M100 0h10v10h-10Z')))).toBeCloseTo(150, 6);
    const bow = read('M0 0L10 10L10 0L0 10Z');
    expect(areaOf({ path: bow, rule: 'evenodd' })).toBeCloseTo(50, 6);
  });

  it('say why nothing comes out', () => {
    const [one, far] = [area(read('M0 0h9v9h-9Z')), area(read('M50 0h9v9h-9Z'))];
    const result = combineAreas('intersect', [one, far]);
    expect(!result.ok && result.message).toMatch(/do not overlap/);
    expect(combineAreas('unite', []).ok).toBe(false);
  });
});

describe('a stroke turned into a closed shape', () => {
  const stroke: InkedStroke = { width: 4, cap: 'butt', join: 'miter', miterLimit: 4, dashes: [] };
  const outlined = (d: string, over: Partial<InkedStroke> = {}): Path => {
    const result = strokeOutline(read(d), { ...stroke, ...over });
    if (!result.ok) throw new Error(result.message);
    return result.path;
  };
  const size = (path: Path): number => areaOf(area(path));

  it('has the area of length times width, with the caps added', () => {
    expect(size(outlined('M0 0H50'))).toBeCloseTo(200, 2);
    expect(size(outlined('M0 0H50', { cap: 'square' }))).toBeCloseTo(216, 2);
    expect(size(outlined('M0 0H50', { cap: 'round' }))).toBeCloseTo(200 + Math.PI * 4, 1);
  });

  it('fills corners as its join says', () => {
    const corner = 'M0 0H20V20';
    expect(size(outlined(corner))).toBeCloseTo(160, 2);
    expect(size(outlined(corner, { join: 'bevel' }))).toBeCloseTo(158, 2);
    expect(size(outlined(corner, { join: 'bevel', cap: 'square' }))).toBeCloseTo(174, 2);
    expect(size(outlined(corner, { join: 'round' }))).toBeCloseTo(160 - 4 + Math.PI, 1);
  });

  it('makes a ring of a closed path and cuts dashes', () => {
    const circle = formatPath(formPath({ kind: 'ellipse' }, 40, 40));
    expect(size(outlined(circle))).toBeCloseTo(Math.PI * (22 ** 2 - 18 ** 2), 0);
    expect(size(outlined('M0 0H50', { dashes: [5, 5] }))).toBeCloseTo(100, 2);
  });

  it('lies in the box that is found without it: that one is no wider than caps and corners can make it', () => {
    const anyLine = fc.record({
      points: fc.array(fc.tuple(fc.integer({ min: 0, max: 90 }), fc.integer({ min: 0, max: 90 })), {
        minLength: 2,
        maxLength: 6,
      }),
      closed: fc.boolean(),
      cap: fc.constantFrom('butt' as const, 'round' as const, 'square' as const),
      join: fc.constantFrom('miter' as const, 'round' as const, 'bevel' as const),
    });
    fc.assert(
      fc.property(anyLine, ({ points, closed, ...over }) => {
        const d = `M${points.map((point) => point.join(' ')).join('L')}${closed ? 'Z' : ''}`;
        const pen = { ...stroke, ...over, width: 10 };
        const made = strokeOutline(read(d), pen);
        // Clipper squares off what is sharper than the limit, where SVG says bevel; and all points may be in one place.
        fc.pre(made.ok && (over.join !== 'miter' || sharpest(points, closed) > 30));
        const [inked, box] = [pathBox(made.ok ? made.path : [])!, strokeBox(read(d), pen)!];
        const beyond = [
          inked.x - box.x,
          inked.y - box.y,
          box.x + box.width - inked.x - inked.width,
          box.y + box.height - inked.y - inked.height,
        ];
        for (const room of beyond) {
          expect(room).toBeGreaterThan(-0.05);
          expect(room).toBeLessThan(5.05);
        }
        if (over.join === 'round' && (closed || over.cap === 'round'))
          for (const room of beyond) expect(room).toBeLessThan(0.05);
      }),
      { numRuns: 300, seed: 7 },
    );
  });

  it('refuses a stroke of no width', () => {
    expect(strokeOutline(read('M0 0H9'), { ...stroke, width: 0 }).ok).toBe(false);
  });
});

/** The smallest angle at a corner, degrees; equal neighbours are none. */
function sharpest(points: readonly [number, number][], closed: boolean): number {
  const line = points.filter(
    ([x, y], at) => at === 0 || x !== points[at - 1]![0] || y !== points[at - 1]![1],
  );
  const round = closed ? [...line, line[0]!, line[1] ?? line[0]!] : line;
  const angles = round.slice(2).map(([x, y], at) => {
    const [[x0, y0], [x1, y1]] = [round[at]!, round[at + 1]!];
    const turn = Math.atan2(y0 - y1, x0 - x1) - Math.atan2(y - y1, x - x1);
    return (Math.abs(Math.atan2(Math.sin(turn), Math.cos(turn))) * 180) / Math.PI;
  });
  return Math.min(180, ...angles);
}

describe('the points of a path', () => {
  const shapes = [
    'M0 0H20V20H0Z',
    'M0 0C5 -9 15 -9 20 0C25 9 5 9 0 0Z',
    'M0 0L9 9C12 12 18 12 20 4',
    'M0 0H9V9ZM20 0H29V9Z',
  ];

  it.each(shapes)('go round: %s', (d) => {
    const path = read(d);
    expect(formatPath(pathOfNodes(nodesOf(path)))).toBe(formatPath(path));
  });

  it('can be added without changing the line, and taken away', () => {
    const [row] = nodesOf(read('M0 0C0 -20 40 -20 40 0Z'));
    if (!row) throw new Error('no row');
    const before = pathBox(pathOfNodes([row]));
    const more = insertNode(row, 0, 0.4);
    expect(more.nodes).toHaveLength(row.nodes.length + 1);
    const after = pathBox(pathOfNodes([more]));
    expect(after?.y).toBeCloseTo(before?.y ?? 0, 9);
    expect(areaOf(area(pathOfNodes([more])))).toBeCloseTo(areaOf(area(pathOfNodes([row]))), 6);
    expect(removeNode(more, 1)?.nodes).toHaveLength(row.nodes.length);
    expect(removeNode({ nodes: more.nodes.slice(0, 2), closed: false }, 0)).toBe(null);
    expect(nearestStretch(row, { x: 20, y: -15 })).toMatchObject({ index: 0, t: 0.5 });
  });

  it('become smooth and plain again; a handle turns its partner along', () => {
    const [row] = nodesOf(read('M0 0L10 10L20 0'));
    if (!row) throw new Error('no row');
    const smooth = setSmooth(row, 1, true);
    const node = smooth.nodes[1];
    expect(node?.before?.y).toBeCloseTo(10, 9);
    expect(node?.after?.x).toBeGreaterThan(10);
    const turned = node && moveHandle(node, 'after', { x: 10, y: 16 }, true);
    expect(turned?.before).toEqual({
      x: expect.closeTo(10, 9) as number,
      y: expect.closeTo(10 - 14.1421 / 3, 3) as number,
    });
    expect(setSmooth(smooth, 1, false)).toEqual(row);
  });
});

describe('drawing aids', () => {
  it('snap to the nearest line within reach, else to the grid', () => {
    expect(snapAlong([10, 20], [13], 4, 10, null)).toEqual({ shift: 3, line: 13 });
    expect(snapAlong([10, 20], [15], 4, 10, null)).toBe(null);
    expect(snapAlong([10, 20], [], 4, 11, 20)).toEqual({ shift: 9, line: 20 });
    expect(snapAngle(52, 15)).toBe(45);
    const { x, y } = pointInSteps({ x: 10, y: 20 }, { x: 13, y: 24 }, 90);
    expect([x, y]).toEqual([expect.closeTo(10, 9), expect.closeTo(25, 9)]);
  });

  it('fit a hand-drawn row of points with few curves that keep near them', () => {
    const points = Array.from({ length: 120 }, (_, at) => ({
      x: at,
      y: 20 * Math.sin(at / 15) + ((at * 7) % 5) * 0.1,
    }));
    const path = fitFreehand(points, 1.5);
    expect(path.length).toBeLessThan(25);
    const line = flatten(path, 40)[0]?.points ?? [];
    const farthest = Math.max(
      ...points.map((point) => Math.min(...line.map((p) => Math.hypot(p.x - point.x, p.y - point.y)))),
    );
    expect(farthest).toBeLessThan(2.5);
  });
});

function polygon(points: readonly { x: number; y: number }[]): Path {
  return [...points.map((to, index): Path[number] => ({ op: index === 0 ? 'M' : 'L', to })), { op: 'Z' }];
}

function signed(ring: readonly [number, number][]): number {
  let twice = 0;
  ring.forEach(([x, y], index) => {
    const [nx, ny] = ring[(index + 1) % ring.length] ?? [x, y];
    twice += x * ny - nx * y;
  });
  return twice / 2;
}

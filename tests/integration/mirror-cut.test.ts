import { describe, expect, it } from 'vitest';
import { apply, invert, multiply, translation, type Affine } from '../../src/lib/core/geom/affine';
import { beyond } from '../../src/lib/core/geom/half-plane';
import { pathBox, transformPath } from '../../src/lib/core/geom/path';
import type { Point } from '../../src/lib/core/geom/point';
import { chambersOf } from '../../src/lib/core/lattice/chamber';
import { asymmetricUnit, groupOperations, type PlaneGroup } from '../../src/lib/core/lattice/groups';
import { latticeOf, latticeVector, type Lattice, type Repeat } from '../../src/lib/core/lattice/repeat';
import { seededRandom as seeded } from '../../src/lib/core/num/random';
import type { Motif, Stroke } from '../../src/lib/core/recipe/recipe';
import { compileUnit } from '../../src/lib/core/scene/unit';
import { drawn, far } from '../support/drawn-page';
import { block, drawing, place, recipe } from '../support/recipes';

const MIRRORED: PlaneGroup[] = [
  ...(['pm', 'cm', 'p2mm', 'p2mg', 'c2mm'] as const),
  ...(['p4mm', 'p4gm', 'p3m1', 'p31m', 'p6mm'] as const),
];

const within = (corners: readonly Point[], { x, y }: Point): boolean =>
  corners.every((from, index) => {
    const to = corners[(index + 1) % corners.length]!;
    return (to.x - from.x) * (y - from.y) - (to.y - from.y) * (x - from.x) >= 0;
  });

/** What takes any point of the page back through an operation and a lattice vector. */
const backOver = (lattice: Lattice, operations: readonly Affine[]): Affine[] =>
  operations.flatMap((operation) =>
    Array.from({ length: 17 * 17 }, (_, at) => {
      const by = latticeVector(lattice, (at % 17) - 6, Math.floor(at / 17) - 6);
      return invert(multiply(translation(by.x, by.y), operation))!;
    }),
  );

describe.each(MIRRORED)('art that ends at the mirror lines of %s', (group) => {
  const unit = { width: 120, height: 104 };
  const repeat: Repeat = { kind: 'group', group, slant: 0, cut: true };
  const corners = asymmetricUnit(group, unit, 0);
  const middle = {
    x: corners.reduce((sum, corner) => sum + corner.x, 0) / corners.length,
    y: corners.reduce((sum, corner) => sum + corner.y, 0) / corners.length,
  };
  // A triangle far larger than the chamber's narrow side, so that it crosses its lines.
  const triangle: Point[] = [
    { x: -38, y: -21 },
    { x: 44, y: -13 },
    { x: -9, y: 41 },
  ];
  const flag = drawing('flag', `M${triangle.map(({ x, y }) => `${x} ${y}`).join('L')}Z`);
  const of = recipe({ unit, repeat, motifs: [flag], placings: [place('flag', middle.x, middle.y)] });
  const side = 480;

  const halves = chambersOf(unit, { across: 0, down: 0 }, repeat)!({ x: middle.x + 3, y: middle.y + 10 });
  const back = backOver(latticeOf(unit, { across: 0, down: 0 }, repeat), groupOperations(group, unit, 0));

  /** The definition: a point is inked where an operation brings it from a point of the motif in the motif's own chamber. */
  const inked = (point: Point): boolean =>
    back.some((matrix) => {
      const from = apply(matrix, point);
      if (Math.hypot(from.x - middle.x, from.y - middle.y) > 60) return false;
      if (halves.some((half) => beyond(half, from) > 0)) return false;
      return within(triangle, { x: from.x - middle.x, y: from.y - middle.y });
    });

  it.each(['expanded', 'live'] as const)('is what the definition says, %s', (patterns) => {
    const picture = drawn(of, side, {}, patterns);
    const random = seeded(11);
    let inkedOnes = 0;
    for (let count = 0; count < 250; count += 1) {
      const point = { x: 10 + Math.floor(random() * 460) + 0.5, y: 10 + Math.floor(random() * 460) + 0.5 };
      const near = [-1.2, 0, 1.2].flatMap((dx) =>
        [-1.2, 0, 1.2].map((dy) => inked({ x: point.x + dx, y: point.y + dy })),
      );
      // Where an edge is near, both are right.
      if (new Set(near).size > 1) continue;
      inkedOnes += near[0] ? 1 : 0;
      expect(picture.at(point.x, point.y)[0] < 128).toBe(near[0]);
    }
    expect(inkedOnes).toBeGreaterThan(25);
  });
});

function stroked(id: string, d: string): Motif {
  const { content, ...rest } = drawing(id, d);
  if (content.kind !== 'drawing') throw new Error('It is drawn.');
  const elements = content.elements.map((one) => ({ ...one, fill: null, stroke: STROKE }));
  return { ...rest, content: { ...content, elements } };
}

const INK = [0x10, 0x20, 0x30];
const STROKE: Stroke = { slot: 'ink', width: 300, cap: 'butt', join: 'miter', miterLimit: 4, dashes: [] };

describe('what meets its own image at a mirror line', () => {
  const unit = { width: 60, height: 60 };
  const kinds: [string, Repeat][] = [
    ['a mirrored unit', { kind: 'mirror', cut: true }],
    ['p4mm', { kind: 'group', group: 'p4mm', slant: 0, cut: true }],
    ['p6mm', { kind: 'group', group: 'p6mm', slant: 0, cut: true }],
  ];
  const motifs: [string, Motif][] = [
    ['a fill', block('art', 300, 300)],
    ['a stroke', stroked('art', 'M-200 -3L200 3')],
  ];
  it.each(kinds.flatMap(([name, repeat]) => motifs.map(([what, motif]) => ({ name, repeat, what, motif }))))(
    'leaves no line in $name: $what',
    ({ repeat, motif }) => {
      const of = recipe({ unit, repeat, motifs: [motif], placings: [place('art', 22, 9)] });
      for (const scale of [0.71, 1, 1.37]) {
        const picture = drawn(of, 220, { scaleX: scale, scaleY: scale, rotation: 17 });
        let palest = 0;
        for (let y = 10; y < 210; y += 1)
          for (let x = 10; x < 210; x += 1) palest = Math.max(palest, far(picture.at(x, y), INK));
        expect(palest).toBeLessThanOrEqual(3);
      }
    },
  );
});

describe('what a motif brings with it over the mirror line', () => {
  const unit = { width: 60, height: 60 };
  const repeat: Repeat = { kind: 'mirror', cut: true };
  const white = [255, 255, 255];

  it('ends there too: no shadow falls on the other side', () => {
    const effects: Motif['effects'] = { drop: { slot: 'ink', angle: 0, distance: 12, blur: 0, opacity: 1 } };
    const shaded: Motif = { ...block('art', 8, 8, 'paper'), effects };
    const at = (cut: boolean): number => {
      const of = recipe({
        unit,
        repeat: { ...repeat, cut },
        motifs: [shaded],
        placings: [place('art', 52, 30)],
      });
      return far(drawn(of, 120).at(62, 30), white);
    };
    expect(at(false)).toBeGreaterThan(200);
    expect(at(true)).toBe(0);
  });

  it('ends there too: a clipped element and one that is see-through', () => {
    const { content, ...rest } = drawing('art', 'M-40 -5H40V5H-40Z');
    if (content.kind !== 'drawing') throw new Error('It is drawn.');
    const [strip] = content.elements;
    const elements = [
      { ...strip!, clip: { d: 'M-9 -9H30V9H-9Z', rule: 'nonzero' as const } },
      { ...strip!, d: 'M-30 20H30', fill: 'ink', stroke: { ...STROKE, width: 6 }, opacity: 0.5 },
    ];
    const of = recipe({
      unit,
      repeat,
      motifs: [{ ...rest, content: { ...content, elements } }],
      placings: [place('art', 52, 20)],
    });
    const picture = drawn(of, 120);
    // The strip from 43 to the line at 60, its image from there to 77; the see-through bar is as dark once as twice.
    expect([
      far(picture.at(44, 20), INK),
      far(picture.at(58, 20), INK),
      far(picture.at(76, 20), INK),
    ]).toEqual([0, 0, 0]);
    expect(far(picture.at(79, 20), white)).toBe(0);
    expect(far(picture.at(52, 40), picture.at(68, 40))).toBe(0);
    expect(far(picture.at(52, 40), white)).toBeLessThan(130);
  });

  it('is outlined where that is little work, and clipped where it would be much', () => {
    const curves = (count: number): string =>
      `M-40 0${Array.from({ length: count }, (_, at) => `C-10 ${at} 10 ${-at} ${40 - (at % 2)} ${at}`).join('')}`;
    const elements = (motifs: Motif[]) =>
      compileUnit(
        recipe({ unit, repeat, motifs, placings: motifs.map(({ id }) => place(id, 52, 20)) }),
      ).pieces.flatMap((piece) => piece.elements);
    const few = elements([stroked('art', curves(3))]);
    expect(few.map(({ stroke, clip, fill }) => [stroke, clip, fill])).toEqual(
      few.map(() => [null, null, 'ink']),
    );
    for (const much of [
      [stroked('art', curves(30))],
      Array.from({ length: 40 }, (_, at) => stroked(`art${at}`, curves(3))),
    ])
      expect(elements(much).every(({ stroke, clip }) => stroke !== null && clip !== null)).toBe(true);
    // What is clipped runs on over the line by half a px: soft edges of two clips would let the ground through.
    const [piece] = compileUnit(
      recipe({ unit, repeat, motifs: [stroked('art', curves(30))], placings: [place('art', 52, 20)] }),
    ).pieces;
    const window = pathBox(transformPath(piece!.matrix, piece!.elements[0]!.clip!.path))!;
    expect(window.x + window.width).toBeCloseTo(60.5, 6);
  });
});

import { describe, expect, it } from 'vitest';
import { apply, multiply, translation } from '../../src/lib/core/geom/affine';
import type { Point } from '../../src/lib/core/geom/point';
import { PLANE_GROUPS, asymmetricUnit, groupOperations } from '../../src/lib/core/lattice/groups';
import { latticeVector, type Front, type Repeat } from '../../src/lib/core/lattice/repeat';
import { MEASURED_FORMS, startMeasured, type Measured } from '../../src/lib/core/recipe/measured';
import type { MeasuredRecipe, Recipe } from '../../src/lib/core/recipe/recipe';
import { checkRecipe } from '../../src/lib/core/recipe/check';
import { asComposed } from '../../src/lib/core/scene/by-hand';
import { compileUnit } from '../../src/lib/core/scene/unit';
import { seededRandom as seeded } from '../../src/lib/core/num/random';
import { block, drawing, place, recipe } from '../support/recipes';
import { drawn, far, type Picture } from '../support/drawn-page';

/** The share of ink in a picture of black on white. */
function inkShare({ side, at }: Picture): number {
  let sum = 0;
  for (let y = 0; y < side; y += 1) for (let x = 0; x < side; x += 1) sum += 255 - at(x, y)[0];
  return sum / (255 * side * side);
}

// International Tables for Crystallography, vol. A: a pattern of a plane group is carried onto itself by every operation.
describe.each(PLANE_GROUPS)('a drawing in plane group %s', (group) => {
  const unit = { width: 90, height: 70 };
  const corners = asymmetricUnit(group, unit, 0.2);
  const middle: Point = {
    x: corners.reduce((sum, corner) => sum + corner.x, 0) / corners.length,
    y: corners.reduce((sum, corner) => sum + corner.y, 0) / corners.length,
  };
  const flag = drawing('flag', 'M-5 -8L5 -8L1 -2L1 8L-5 8Z');
  const repeat: Repeat = { kind: 'group', group, slant: 0.2 };
  const of = recipe({ unit, repeat, motifs: [flag], placings: [place('flag', middle.x, middle.y)] });
  const scene = compileUnit(of);
  const side = 480;
  const picture = drawn(of, side);

  it('is carried onto itself by every operation and every lattice vector', () => {
    const random = seeded(7);
    for (const operation of groupOperations(group, unit, 0.2)) {
      let wrong = 0;
      for (let count = 0; count < 300; count += 1) {
        const shift = latticeVector(
          scene.lattice,
          Math.floor(random() * 5) - 1,
          Math.floor(random() * 5) - 1,
        );
        const from = { x: 150 + random() * 180, y: 150 + random() * 180 };
        const to = apply(multiply(translation(shift.x, shift.y), operation), from);
        if (to.x < 1 || to.y < 1 || to.x >= side - 1 || to.y >= side - 1) continue;
        if (far(picture.at(from.x, from.y), picture.at(to.x, to.y)) > 140) wrong += 1;
      }
      expect(wrong).toBeLessThanOrEqual(9);
    }
    expect(inkShare(picture)).toBeGreaterThan(0.01);
  });
});

describe('what lies on top where units overlap', () => {
  const wide = (front: Front, repeat: Repeat): Recipe =>
    recipe({
      unit: { width: 40, height: 40 },
      front,
      repeat,
      motifs: [drawing('low', 'M-30 -30H30V30H-30Z'), drawing('high', 'M-24 -24H24V24H-24Z', 'paper')],
      placings: [place('low', 20, 20), place('high', 20, 20)],
    });
  const fronts: Front[] = (['right', 'left'] as const).flatMap((across) =>
    (['lower', 'upper'] as const).map((down) => ({ across, down })),
  );
  const repeats: Repeat[] = [
    { kind: 'straight' },
    { kind: 'brick', step: 1 / 3, run: 'progressive' },
    { kind: 'brick', step: 0.25, run: 'alternating' },
    { kind: 'half-drop', step: 0.25, run: 'alternating' },
    { kind: 'half-drop', step: 0.5, run: 'progressive' },
  ];

  it.each(repeats.flatMap((repeat) => fronts.map((front) => [repeat, front] as const)))(
    'is the same at every lattice point: %o, front %o',
    (repeat, front) => {
      const of = wide(front, repeat);
      const { lattice } = compileUnit(of);
      const picture = drawn(of, 400);
      let wrong = 0;
      for (let y = 160; y < 240; y += 2.5) {
        for (let x = 160; x < 240; x += 2.5) {
          for (const [i, j] of [
            [1, 0],
            [0, 1],
            [-1, 1],
            [2, -1],
          ] as const) {
            const by = latticeVector(lattice, i, j);
            if (far(picture.at(x, y), picture.at(x + by.x, y + by.y)) > 128) wrong += 1;
          }
        }
      }
      expect(wrong).toBeLessThanOrEqual(8);
    },
  );

  it('follows the chosen direction', () => {
    // The edge strip of the unit at (160, 160) reaches over its right and lower neighbours only if those are behind.
    const at = (front: Front, x: number, y: number): number =>
      drawn(wide(front, { kind: 'straight' }), 400).at(x, y)[0];
    const rightEdge: [number, number] = [160 + 40 + 7, 180];
    expect(at({ across: 'left', down: 'lower' }, ...rightEdge)).toBeLessThan(100);
    expect(at({ across: 'right', down: 'lower' }, ...rightEdge)).toBeGreaterThan(200);
    const lowerEdge: [number, number] = [180, 160 + 40 + 7];
    expect(at({ across: 'right', down: 'upper' }, ...lowerEdge)).toBeLessThan(100);
    expect(at({ across: 'right', down: 'lower' }, ...lowerEdge)).toBeGreaterThan(200);
  });
});

/** A measured recipe in black, with some numbers changed. */
function measured(
  form: Measured['form'],
  numbers: Record<string, number>,
  more: Partial<Measured> = {},
): MeasuredRecipe {
  const start = startMeasured(form, ['ink', 'ink']);
  return {
    kind: 'measured',
    version: 2,
    measure: 'pt',
    measured: { ...start, ...more, numbers: { ...start.numbers, ...numbers } },
    ground: { kind: 'clear' },
    slots: [{ id: 'ink', name: 'Ink', colour: '#000000' }],
  };
}

describe('measured patterns', () => {
  it.each(MEASURED_FORMS)('%s start sound and draw something', (form) => {
    const of = measured(form, {});
    expect(checkRecipe(of)).toEqual([]);
    const share = inkShare(drawn(of, 300));
    expect(share).toBeGreaterThan(0.02);
    expect(share).toBeLessThan(form === 'scallop' ? 1.01 : 0.97);
  });

  // Exact areas of plane figures; π·20²/100² is the worked number of the trade (common practice, no source).
  const hexagon = Math.sqrt(3) / 2;
  it.each<[Measured['form'], Record<string, number>, Partial<Measured>, number]>([
    ['dots', { diameter: 40, pitch: 100 }, {}, (Math.PI * 400) / 10_000],
    [
      'dots',
      { diameter: 20, pitch: 50 },
      { choices: { layout: 'hexagonal' } },
      (Math.PI * 100) / (2500 * hexagon),
    ],
    ['stripes', { width: 5, pitch: 20, angle: 0 }, {}, 0.25],
    ['hatch', { width: 4, pitch: 12, angle: 45 }, {}, 1 / 3],
    [
      'hatch',
      { width: 4, pitch: 20, angle: 30, width2: 4, pitch2: 20, turn: 90 },
      { choices: { second: 'yes' } },
      1 - 0.8 ** 2,
    ],
    [
      'hatch',
      { width: 4, pitch: 20, angle: 10, width2: 2, pitch2: 25, turn: 60 },
      { choices: { second: 'yes' } },
      1 - 0.8 * 0.92,
    ],
    ['hatch', { width: 4, pitch: 20, angle: 30, dash: 15, space: 5 }, {}, 0.15],
    ['checks', { side: 25, down: 15 }, {}, 0.5],
    ['gingham', { band: 20, gap: 30, tint: 0.5 }, {}, 0.4 * 0.4 + 2 * 0.5 * 0.4 * 0.6],
    ['grid', { across: 30, down: 40, width: 3, angle: 0 }, {}, 1 - 0.9 * (37 / 40)],
    ['triangles', { side: 30, height: 20 }, {}, 0.5],
    ['diamond', { across: 30, down: 40, size: 0.8 }, {}, 0.32],
    ['bricks', { length: 38, height: 18, joint: 2, radius: 0 }, {}, (38 * 18) / (40 * 20)],
    [
      'rings',
      { diameter: 60, width: 5, count: 2, pitch: 100 },
      {},
      (Math.PI * (30 ** 2 - 25 ** 2 + 15 ** 2 - 10 ** 2)) / 10_000,
    ],
    ['dashes', { length: 15, space: 5, width: 4, pitch: 10 }, {}, 0.3],
  ])('%s cover what geometry says: %o %o', (form, numbers, more, expected) => {
    const share = inkShare(drawn(measured(form, numbers, more), 600, { scaleX: 0.5, scaleY: 0.5 }));
    expect(Math.abs(share - expected)).toBeLessThan(0.004);
  });

  it.each<[Measured['form'], Record<string, number>, Partial<Measured>]>([
    ...MEASURED_FORMS.filter((form) => form !== 'bands').map(
      (form): [Measured['form'], Record<string, number>, Partial<Measured>] => [form, { angle: 0 }, {}],
    ),
    ['stripes', { width: 5, pitch: 17, angle: 33 }, {}],
    [
      'hatch',
      { width: 3, pitch: 20, angle: 0, width2: 2, pitch2: 25, turn: 60 },
      { choices: { second: 'yes' } },
    ],
    ['dots', { diameter: 20, pitch: 40, angle: 0 }, { choices: { layout: 'hexagonal' } }],
  ])('are the same picture when turned into placings: %s %o', (form, numbers, more) => {
    const of = measured(form, numbers, more);
    let count = 0;
    const { recipe: byHand } = asComposed(of, () => `id${(count += 1)}`);
    expect(checkRecipe(byHand)).toEqual([]);
    const [one, other] = [drawn(of, 240), drawn(byHand, 240)];
    let wrong = 0;
    for (let y = 0; y < 240; y += 1)
      for (let x = 0; x < 240; x += 1) if (far(one.at(x, y), other.at(x, y)) > 90) wrong += 1;
    expect(wrong / 240 ** 2).toBeLessThan(0.004);
  });

  // Common practice, no source: a hatch of 1 pt every 4 pt at 45°, used at 300 %, has lines of 3 pt every 12 pt.
  it.each([
    ['stripes', 45, 0],
    ['hatch', 45, 0],
    ['stripes', 0, 45],
  ] as const)('%s at %d° in a fill turned by %d° keep width and pitch at 300 %%', (form, angle, rotation) => {
    const of = measured(form, { width: 4 / 3, pitch: 16 / 3, angle });
    const picture = drawn(of, 400, { scaleX: 3, scaleY: 3, rotation });
    // Along the normal of 45° lines: ink and period as run lengths with sub-pixel edges.
    const step = 0.05;
    let ink = 0;
    let rises = 0;
    let before = 0;
    const length = 256;
    for (let t = 0; t < length; t += step) {
      const along = 60 + t / Math.SQRT2;
      const dark = (255 - picture.at(along, 400 - along)[0]) / 255;
      ink += dark * step;
      if (before < 0.5 && dark >= 0.5) rises += 1;
      before = dark;
    }
    expect(rises).toBeGreaterThanOrEqual(Math.floor(length / 16));
    expect(rises).toBeLessThanOrEqual(Math.ceil(length / 16));
    expect(ink / length).toBeCloseTo(0.25, 1.7);
  });

  it('bands that meet let nothing of the ground shine through, at any angle and scale', () => {
    const of = measured(
      'bands',
      { angle: 0 },
      {
        bands: [
          { width: 12, slot: 'ink' },
          { width: 7, slot: 'ink' },
          { width: 9, slot: 'ink' },
        ],
      },
    );
    const random = seeded(11);
    for (let count = 0; count < 40; count += 1) {
      const scale = 0.2 + random() * 5;
      const picture = drawn(of, 160, { scaleX: scale, scaleY: scale, rotation: random() * 360 });
      let worst = 0;
      for (let y = 2; y < 158; y += 1)
        for (let x = 2; x < 158; x += 1) worst = Math.max(worst, picture.at(x, y)[0]);
      expect(worst).toBeLessThanOrEqual(2);
    }
  });

  // Common practice, no source: a mark 106 px high turned 30° in a brick unit of 180 × 140 px stays clear of its neighbours.
  it('a mark 106 px high turned 30° in a 180 × 140 px brick never touches its neighbours', () => {
    const of = recipe({
      unit: { width: 180, height: 140 },
      repeat: { kind: 'brick', step: 0.5, run: 'progressive' },
      motifs: [block('mark', 30, 106)],
      placings: [place('mark', 90, 70, { rotation: 30 })],
    });
    const share = inkShare(drawn(of, 720));
    expect(share).toBeCloseTo(((30 * 106) / (180 * 140)) * (1 - 0x10 / 255), 1.9);
  });
});

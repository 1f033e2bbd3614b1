import { describe, expect, it } from 'vitest';
import { recipe, block, drawing, place } from '../../../../tests/support/recipes';
import { seededRandom } from '../num/random';
import { offsetsMeeting, regionOfBox } from '../lattice/meet';
import { FRONT, latticeOf, type Repeat } from '../lattice/repeat';
import { MEASURED, startMeasured, type MeasuredForm } from '../recipe/measured';
import type { MeasuredRecipe, Recipe } from '../recipe/recipe';
import { cellCost, copiesOver, elementWeight } from './cost';
import { soundRecipe } from './sound';
import { compileUnit } from './unit';

const measured = (form: MeasuredForm, numbers: Record<string, number>, choices = {}): MeasuredRecipe => {
  const { slots, version, measure } = recipe();
  const start = startMeasured(form, ['ink']);
  return {
    ...{ kind: 'measured', version, measure, slots, ground: { kind: 'clear' } },
    measured: {
      ...start,
      numbers: { ...start.numbers, ...numbers },
      choices: { ...start.choices, ...choices },
    },
  };
};

describe('the count of copies', () => {
  it('is that of all lattice offsets at which a box meets a region, on the mean over places', () => {
    const random = seededRandom(5);
    const repeats: Repeat[] = [
      { kind: 'straight' },
      { kind: 'brick', step: 0.37, run: 'progressive' },
      { kind: 'half-drop', step: 0.5, run: 'alternating' },
    ];
    for (const repeat of repeats) {
      const lattice = latticeOf({ width: 30, height: 20 }, { across: 4, down: 7 }, repeat, FRONT);
      let [counted, said] = [0, 0];
      for (let round = 0; round < 300; round += 1) {
        const box = { x: random() * 90, y: random() * 90, width: random() * 200, height: random() * 60 };
        const region = regionOfBox({ x: random() * 90, y: random() * 90, width: 300, height: 150 });
        counted += offsetsMeeting(lattice, box, region).length;
        said += copiesOver(lattice, region)(box);
      }
      // The mean over all places is the area of the Minkowski sum over that of a unit (Minkowski, mixed areas).
      expect(said / counted).toBeCloseTo(1, 1);
    }
  });

  it('takes turned regions as they are', () => {
    const lattice = latticeOf({ width: 5, height: 5 }, { across: 0, down: 0 }, { kind: 'straight' }, FRONT);
    const diamond = [
      { x: 0, y: -100 },
      { x: 100, y: 0 },
      { x: 0, y: 100 },
      { x: -100, y: 0 },
    ];
    const box = { x: 0, y: 0, width: 12, height: 30 };
    const counted = offsetsMeeting(lattice, box, diamond).length;
    expect(copiesOver(lattice, diamond)(box) / counted).toBeCloseTo(1, 1);
  });

  it('counts dashes as what they are drawn as', () => {
    const dashed = drawing('d', 'M0 0H1000');
    const stroke = {
      slot: 'ink',
      width: 1,
      cap: 'butt',
      join: 'miter',
      miterLimit: 4,
      dashes: [0.01, 0.01],
    } as const;
    if (dashed.content.kind !== 'drawing') throw new Error('no drawing');
    const [element] = dashed.content.elements;
    const art = recipe({
      motifs: [
        {
          ...dashed,
          content: {
            ...dashed.content,
            elements: [{ ...element!, fill: null, stroke: { ...stroke, dashes: [...stroke.dashes] } }],
          },
        },
      ],
      placings: [place('d', 0, 0)],
    });
    const [piece] = compileUnit({ ...art, unit: { width: 2000, height: 2000 } }).pieces;
    expect(elementWeight(piece!.elements[0]!)).toBeCloseTo(100_002, 0);
  });
});

/** Numbers that are allowed one by one, and together come to more than anything can draw. */
const TOO_MUCH: [string, Recipe][] = [
  [
    'rings of 10,000 px, 0.756 px apart',
    measured('rings', { diameter: 10_000, pitch: 0.756, width: 1, count: 2 }),
  ],
  [
    'a hatch whose second lines are 20,000 px wide',
    measured('hatch', { pitch: 4, width: 1, width2: 20_000, pitch2: 4, turn: 90 }, { second: 'yes' }),
  ],
  ['dots of 20,000 px, 0.01 px apart', measured('dots', { diameter: 20_000, pitch: 0.01 })],
  [
    'waves of 20,000 px in rows of 0.01 px',
    measured('wave', { length: 0.01, height: 20_000, width: 20_000, pitch: 0.01 }),
  ],
  [
    'a stroke of 100,000 px on a unit of 100 px',
    recipe({
      motifs: [
        {
          id: 'l',
          name: 'l',
          content: { kind: 'line', length: 100_000, thickness: 100_000, cap: 'round', slot: 'ink' },
        },
      ],
      placings: [place('l', 0, 0)],
      unit: { width: 1, height: 1 },
    }),
  ],
  [
    'shadows of 800 px on a unit of 0.4 px',
    recipe({
      motifs: [
        {
          ...block('b', 1, 1),
          effects: { drop: { slot: 'ink', angle: 0, distance: 200, blur: 200, opacity: 1 } },
        },
      ],
      placings: [place('b', 0, 0)],
      unit: { width: 0.4, height: 0.4 },
    }),
  ],
  [
    'a motif of 9,000 corners, placed 400 times',
    recipe({
      motifs: [drawing('z', `M0 0${'l1 1'.repeat(9000)}`)],
      placings: Array.from({ length: 400 }, (_, index) => place('z', index, 0)),
      unit: { width: 9000, height: 9000 },
    }),
  ],
];

describe('a recipe that is too much to draw', () => {
  it.each(TOO_MUCH)('%s: is refused with a sentence, and never drawn', (_what, art) => {
    expect(soundRecipe(art)).toMatchObject([
      { message: expect.stringMatching(/at most .* are drawn|too large an area/) as string },
    ]);
    const scene = compileUnit(art);
    expect(scene.fault).not.toBeNull();
    expect([scene.pieces, scene.endless, scene.abutments]).toEqual([[], [], []]);
  });

  it('is refused for a coordinate that lies too far out', () => {
    for (const d of ['M0 0L1e11 0L5 5z', 'M0 0L0 -2000000'])
      expect(soundRecipe(recipe({ motifs: [drawing('d', d)], placings: [place('d', 0, 0)] }))).toMatchObject([
        { message: expect.stringMatching(/reaches further than 1000000 px/) as string },
      ]);
  });

  it('is found out by reading every motif once, however often it is placed', () => {
    const twice = recipe({
      motifs: [drawing('z', `M0 0${'l1 1'.repeat(90)}`)],
      placings: [place('z', 0, 0), place('z', 9, 0)],
    });
    const [one, other] = compileUnit(twice, { skipAbutments: true }).pieces;
    expect(other!.elements).toBe(one!.elements);
  });

  it('says nothing of what people make', () => {
    for (const form of Object.keys(MEASURED) as MeasuredForm[])
      expect(soundRecipe(measured(form, {}))).toEqual([]);
    const busy = recipe({
      unit: { width: 900, height: 900 },
      motifs: [drawing('l', 'M0-12C8-6 8 6 0 12C-8 6-8-6 0-12Z')],
      placings: Array.from({ length: 5000 }, (_, index) =>
        place('l', index % 70, index / 70, { id: `p${index}` }),
      ),
    });
    expect(soundRecipe(busy)).toEqual([]);
    expect(cellCost(compileUnit(busy, { skipAbutments: true })).copies).toBeGreaterThan(5000);
  });
});

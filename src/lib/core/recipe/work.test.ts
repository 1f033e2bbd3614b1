import { describe, expect, it } from 'vitest';
import { block, dot, place, recipe } from '../../../../tests/support/recipes';
import { asDrawing, elementsBox, formElement, pathOf, transformElement } from '../scene/drawing';
import { asComposed } from '../scene/by-hand';
import { rotation, scaling, translation } from '../geom/affine';
import { formatPath, pathBox } from '../geom/path';
import { alignBoxes } from './align';
import { checkRecipe } from './check';
import { fitUnit, makeIndependent, usedSlots } from './edit';
import { measuredName, startMeasured } from './measured';
import { migrateRecipe } from './migrate';
import type { MeasuredRecipe, Recipe } from './recipe';

/** A recipe as Isle stored it in version 1, kept as a sample. */
const V1 = {
  kind: 'composed',
  version: 1,
  measure: 'mm',
  unit: { width: 100, height: 80 },
  gap: { across: 2, down: 3 },
  repeat: { kind: 'brick', step: 0.5, run: 'progressive' },
  ground: { kind: 'slot', slot: 'ink' },
  slots: [{ id: 'ink', name: 'Ink', colour: '#102030' }],
  motifs: [
    {
      id: 'm',
      name: 'M',
      content: { kind: 'form', form: { kind: 'ellipse' }, width: 9, height: 9, slot: 'ink' },
    },
    {
      id: 'd',
      name: 'D',
      content: {
        kind: 'drawing',
        asset: null,
        width: 9,
        height: 9,
        elements: [{ d: 'M0 0H9V9Z', fill: 'ink', fillRule: 'nonzero', stroke: null, opacity: 1 }],
      },
    },
  ],
  placings: [{ id: 'p', motif: 'm', x: 5, y: 6, rotation: 10, scaleX: 1, scaleY: 2 }],
};

describe('a stored recipe', () => {
  it('of version 1 is brought to the present one and stays as it was drawn', () => {
    const read = migrateRecipe(structuredClone(V1));
    if (!read.ok || read.value.kind !== 'composed') throw new Error('not read');
    expect(read.value).toMatchObject({
      version: 2,
      front: { across: 'right', down: 'lower' },
      placings: [{ ...V1.placings[0], opacity: 1 }],
      motifs: V1.motifs,
    });
    expect(checkRecipe(read.value)).toEqual([]);
  });

  it('of a later version is refused', () => {
    expect(migrateRecipe({ version: 3 }).ok).toBe(false);
  });
});

describe('work on a recipe', () => {
  const two = recipe({ motifs: [dot('d', 10)], placings: [place('d', 20, 20), place('d', 80, 80)] });

  it('makes placings independent: a copy of their motif, once for all of them', () => {
    const ids = new Set([two.placings[0]?.id ?? '']);
    const made = makeIndependent(two, ids, () => 'fresh');
    expect(made.motifs.map(({ id, name }) => [id, name])).toEqual([
      ['d', 'd'],
      ['fresh', 'd 2'],
    ]);
    expect(made.placings.map(({ motif }) => motif)).toEqual(['fresh', 'd']);
    expect(two.motifs).toHaveLength(1);
  });

  it('fits the unit to the art with a margin, guides along with it', () => {
    const guided = { ...two, aids: { ...two.aids, guides: [{ axis: 'x' as const, at: 20 }] } };
    const fitted = fitUnit(guided, { x: 15, y: 15, width: 70, height: 70 }, 10);
    expect(fitted.unit).toEqual({ width: 90, height: 90 });
    expect(fitted.placings[0]).toMatchObject({ x: 15, y: 15 });
    expect(fitted.aids.guides).toEqual([{ axis: 'x', at: 15 }]);
  });

  it('counts the slots of shadows, gradients, bands and grounds as used', () => {
    const shadow = { slot: 'paper', angle: 0, distance: 1, blur: 1, opacity: 1 };
    expect(usedSlots({ ...two, motifs: [{ ...dot('d', 10), effects: { drop: shadow } }] })).toEqual(
      new Set(['ink', 'paper']),
    );
  });

  it('refuses what contradicts itself, with the number and the remedy', () => {
    const solid = measuredRecipe('stripes', { width: 9, pitch: 5 });
    expect(checkRecipe(solid)[0]?.message).toMatch(/larger than the distance/);
    const full = measuredRecipe('rings', { diameter: 10, width: 4, count: 3 });
    expect(checkRecipe(full)[0]?.message).toMatch(/do not fit/);
    const faded: Recipe = {
      ...two,
      repeat: { kind: 'half-drop', step: 0.5, run: 'progressive' },
      ground: {
        kind: 'linear',
        along: 'down',
        stops: [
          { at: 0, slot: 'ink' },
          { at: 0.5, slot: 'paper' },
        ],
      },
    };
    expect(checkRecipe(faded).map(({ code }) => code)).toEqual(['not_seamless']);
    expect(checkRecipe({ ...faded, repeat: { kind: 'straight' } })).toEqual([]);
  });
});

function measuredRecipe(
  form: 'stripes' | 'rings' | 'hatch' | 'bricks',
  numbers: Record<string, number>,
): MeasuredRecipe {
  const start = startMeasured(form, ['ink']);
  return {
    kind: 'measured',
    version: 2,
    measure: 'px',
    measured: { ...start, numbers: { ...start.numbers, ...numbers } },
    ground: { kind: 'clear' },
    slots: [{ id: 'ink', name: 'Ink', colour: '#102030' }],
  };
}

describe('a measured pattern turned into placings', () => {
  let count = 0;
  const newId = (): string => `n${(count += 1)}`;

  it('of diagonal lines has the unit whose diagonal they follow', () => {
    const { recipe: made, note } = asComposed(
      measuredRecipe('hatch', { width: 2, pitch: 6, angle: 30 }),
      newId,
    );
    expect(made.unit.width).toBeCloseTo(12, 9);
    expect(made.unit.height).toBeCloseTo(6 / Math.cos(Math.PI / 6), 9);
    expect([made.placings.length, note]).toEqual([1, null]);
    expect(checkRecipe(made)).toEqual([]);
  });

  it('of bricks keeps their step; a turn is left to the use and said', () => {
    const { recipe: made, note } = asComposed(measuredRecipe('bricks', { angle: 20, step: 1 / 3 }), newId);
    expect(made.repeat).toMatchObject({ kind: 'brick', step: expect.closeTo(1 / 3, 9) as number });
    expect(note).toMatch(/turn it by 20°/);
  });

  it('says what it is in its name', () => {
    const { measured } = measuredRecipe('stripes', { width: 1, pitch: 4, angle: 45 });
    expect(measuredName(measured, (px) => `${px} px`)).toBe('Stripes 1 px every 4 px, 45°');
  });
});

describe('things lined up', () => {
  const items = [
    { id: 'a', box: { x: 0, y: 0, width: 10, height: 10 } },
    { id: 'b', box: { x: 30, y: 20, width: 20, height: 10 } },
    { id: 'c', box: { x: 90, y: 5, width: 10, height: 40 } },
  ];

  it('meet an edge or a middle of all, or of a frame', () => {
    expect(alignBoxes('right', items, null)[0]).toEqual(['a', { x: 90, y: 0 }]);
    expect(alignBoxes('middle', items, null)[1]).toEqual(['b', { x: 0, y: -2.5 }]);
    expect(alignBoxes('centre', items.slice(0, 1), { x: 0, y: 0, width: 0, height: 0 })).toEqual([
      ['a', { x: -5, y: 0 }],
    ]);
  });

  it('have equal spaces between them, the outer ones staying', () => {
    const moved = new Map(alignBoxes('spread-across', items, null));
    expect([moved.get('a'), moved.get('b'), moved.get('c')]).toEqual([
      { x: 0, y: 0 },
      { x: 10, y: 0 },
      { x: 0, y: 0 },
    ]);
    expect(alignBoxes('spread-down', items.slice(0, 2), null)).toEqual([]);
  });
});

describe('a drawing', () => {
  const source = {
    kind: 'form' as const,
    form: { kind: 'rectangle' as const, radius: 0 },
    x: -10,
    y: -5,
    width: 20,
    height: 10,
    rotation: 0,
  };
  const element = formElement(source, { fill: 'ink', stroke: null });

  it('is made of any motif, in its place', () => {
    const drawn = asDrawing(block('b', 30, 20).content);
    expect(elementsBox(drawn.elements)).toEqual({ x: -15, y: -10, width: 30, height: 20 });
    expect(drawn.elements[0]?.source).toMatchObject({ kind: 'form', x: -15, width: 30 });
  });

  it('keeps its numbers through moves, sizes and turns, and forgets them when they can no longer say what it is', () => {
    const moved = transformElement(transformElement(element, translation(5, 0)), scaling(2));
    expect(moved.source).toMatchObject({ x: -10, y: -10, width: 40, height: 20, rotation: 0 });
    const turned = transformElement(element, rotation(90));
    expect(turned.source).toMatchObject({ width: 20, height: 10, rotation: 90 });
    expect(
      formatPath(pathOf(formElement(turned.source as typeof source, { fill: 'ink', stroke: null }))),
    ).toBe(formatPath(pathOf(turned)));
    expect(transformElement(turned, scaling(2, 1)).source).toBeUndefined();
    expect(pathBox(pathOf(transformElement(turned, scaling(2, 1))))).toMatchObject({ width: 20, height: 20 });
  });

  it('scales strokes with itself', () => {
    const stroke = {
      slot: 'ink',
      width: 2,
      cap: 'butt' as const,
      join: 'miter' as const,
      miterLimit: 4,
      dashes: [3, 1],
    };
    expect(transformElement({ ...element, stroke }, scaling(3)).stroke).toMatchObject({
      width: 6,
      dashes: [9, 3],
    });
  });
});

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { block, drawing, place, recipe } from '../../../../tests/support/recipes';
import { filledShape } from '../../../../tests/support/scenes';
import { apply } from '../geom/affine';
import { patternHandle, scalePatternAt } from '../scene/handle';
import { compileUnit } from '../scene/unit';
import { checkRecipe } from './check';
import { mergeSlots, usedSlots } from './edit';
import type { PatternFill } from './fill';
import { pagePatternMatrix, shapeCentre, type Shape } from './layout';
import { migrateRecipe } from './migrate';
import { frameByHandle } from './sizing';
import { restack } from './stack';
import { moveBy, sizeTo, turnBy } from './transform';

const fillOf = (shape: Shape): PatternFill => shape.fills[0] as PatternFill;
const onPage = (shape: Shape) => pagePatternMatrix(shape, fillOf(shape));
const close = (one: object, other: object): void => {
  for (const [key, value] of Object.entries(one))
    expect((other as Record<string, number>)[key]).toBeCloseTo(value as number, 6);
};
const start = (over: Partial<PatternFill> = {}): Shape => ({
  ...filledShape(
    { x: 100, y: 50, width: 200, height: 120 },
    { scaleX: 1.4, scaleY: 1.4, rotation: -30, offset: { x: 12, y: 4 }, ...over },
  ),
  rotation: 10,
});

describe('handles move the shape', () => {
  it('and sizing it never moves or stretches the pattern on the page', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(-1, 0, 1),
        fc.constantFrom(-1, 0, 1),
        fc.integer({ min: -300, max: 600 }),
        fc.integer({ min: -300, max: 600 }),
        (across, down, x, y) => {
          const shape = start();
          const frame = frameByHandle(
            shape,
            { across, down } as never,
            { x, y },
            { proportional: false, centred: false },
          );
          const sized = sizeTo(shape, 'shape', frame);
          close(onPage(shape), onPage(sized));
          expect(fillOf(sized)).toMatchObject({
            scaleX: 1.4,
            scaleY: 1.4,
            rotation: -30,
            offset: { x: 12, y: 4 },
          });
        },
      ),
    );
  });

  // Common practice, no source: a shape reshaped after a 700 % pattern scale keeps that scale.
  it('and a 700 % pattern stays at 700 %', () => {
    const sized = sizeTo(start({ scaleX: 7, scaleY: 7 }), 'shape', { x: 0, y: 0, width: 900, height: 30 });
    expect(fillOf(sized)).toMatchObject({ scaleX: 7, scaleY: 7 });
  });

  it('takes the pattern along when it moves, and leaves it when it turns', () => {
    const moved = moveBy(start(), 'shape', { x: 30, y: -7 });
    expect(fillOf(moved)).toEqual(fillOf(start()));
    expect(onPage(moved).e - onPage(start()).e).toBeCloseTo(30, 9);
    const turned = turnBy(start(), 'shape', 25, { x: 0, y: 0 });
    expect(turned.rotation).toBeCloseTo(35, 9);
    close(onPage(start()), onPage(turned));
  });
});

describe('handles move the pattern', () => {
  it('and the shape stays', () => {
    const { fills: _one, ...frame } = start();
    for (const changed of [
      moveBy(start(), 'pattern', { x: 5, y: 6 }),
      turnBy(start(), 'pattern', 45, { x: 10, y: 10 }),
      sizeTo(start(), 'pattern', { x: 100, y: 50, width: 400, height: 240 }),
      scalePatternAt(start(), { x: 0, y: 0 }, 2, 2),
    ]) {
      const { fills: _other, ...after } = changed;
      expect(after).toEqual(frame);
    }
    expect(fillOf(moveBy(start(), 'pattern', { x: 5, y: 6 })).offset).toEqual({ x: 17, y: 10 });
    expect(fillOf(turnBy(start(), 'pattern', 75, { x: 10, y: 10 })).rotation).toBeCloseTo(45, 9);
  });

  it('by a handle on its own lattice, whose arms end a whole number of units away', () => {
    const scene = compileUnit(recipe({ repeat: { kind: 'brick', step: 0.5, run: 'progressive' } }));
    const handle = patternHandle(start(), fillOf(start()), scene, 20);
    expect(handle).not.toBeNull();
    if (!handle) return;
    expect(Math.hypot(handle.across.x - handle.hub.x, handle.across.y - handle.hub.y)).toBeCloseTo(
      140 * handle.repeatsAcross,
      9,
    );
    expect(
      Math.hypot(handle.hub.x - shapeCentre(start()).x, handle.hub.y - shapeCentre(start()).y),
    ).toBeLessThan(140);
    const scaled = scalePatternAt(start(), handle.unit, 1.5, 1.5);
    expect(fillOf(scaled).scaleX).toBeCloseTo(2.1, 9);
    close(apply(onPage(scaled), handle.unit), handle.hub);
  });
});

describe('handles move both', () => {
  it('and the pattern keeps its place in the shape', () => {
    const sized = sizeTo({ ...start(), rotation: 0 }, 'both', { x: 100, y: 50, width: 400, height: 240 });
    expect(fillOf(sized).scaleX).toBeCloseTo(2.8, 9);
    expect(fillOf(sized).rotation).toBeCloseTo(-30, 9);
    const turned = turnBy(start(), 'both', 30, shapeCentre(start()));
    expect(fillOf(turned).rotation).toBeCloseTo(0, 9);
    expect(turned.rotation).toBeCloseTo(40, 9);
    const back = turnBy(turned, 'both', -30, shapeCentre(start()));
    close(onPage(start()), onPage(back));
  });

  it('also when it is stretched one way only, then with a skew that can be read', () => {
    const shape = { ...start(), rotation: 0 };
    const sized = sizeTo(shape, 'both', { x: 100, y: 50, width: 400, height: 120 });
    expect(Math.abs(fillOf(sized).skew)).toBeGreaterThan(1);
    const corner = apply(onPage(shape), { x: 33, y: 21 });
    close(apply(onPage(sized), { x: 33, y: 21 }), { x: 100 + (corner.x - 100) * 2, y: corner.y });
  });
});

describe('a frame pulled by a handle', () => {
  it('keeps the opposite side, the ratio, or the middle', () => {
    const shape = { ...start(), rotation: 0 };
    const free = frameByHandle(
      shape,
      { across: 1, down: 1 },
      { x: 400, y: 200 },
      { proportional: false, centred: false },
    );
    expect(free).toEqual({ x: 100, y: 50, width: 300, height: 150 });
    const alike = frameByHandle(
      shape,
      { across: -1, down: 0 },
      { x: 0, y: 0 },
      { proportional: true, centred: false },
    );
    expect(alike.width / alike.height).toBeCloseTo(200 / 120, 9);
    expect(alike.x + alike.width).toBeCloseTo(300, 9);
    const centred = frameByHandle(
      shape,
      { across: 1, down: 0 },
      { x: 350, y: 0 },
      { proportional: false, centred: true },
    );
    expect(centred).toEqual({ x: 50, y: 50, width: 300, height: 120 });
    expect(
      frameByHandle(shape, { across: 1, down: 0 }, { x: -900, y: 0 }, { proportional: false, centred: false })
        .width,
    ).toBe(0.01);
  });
});

describe('a recipe', () => {
  const good = recipe({ motifs: [block('b', 10, 10)], placings: [place('b', 5, 5)] });

  it('that is sound has no problems', () => {
    expect(checkRecipe(good)).toEqual([]);
    expect(migrateRecipe(JSON.parse(JSON.stringify(good)))).toEqual({ ok: true, value: good });
  });

  it.each([
    ['a unit without width', { ...good, unit: { width: 0, height: 10 } }, 'unit.width'],
    ['a huge gap', { ...good, gap: { across: 1e9, down: 0 } }, 'gap.across'],
    [
      'a step that is no number',
      { ...good, repeat: { kind: 'brick' as const, step: NaN, run: 'progressive' as const } },
      'repeat.step',
    ],
    ['a placing of no motif', { ...good, placings: [place('gone', 0, 0)] }, 'placings.0.motif'],
    ['a placing of size 0', { ...good, placings: [place('b', 0, 0, { scaleX: 0 })] }, 'placings.0.scaleX'],
    ['a motif of no slot', { ...good, motifs: [block('b', 10, 10, 'gone')] }, 'motifs.0.content.slot'],
    [
      'a path that cannot be read',
      { ...good, motifs: [drawing('b', 'M nothing')] },
      'motifs.0.content.elements.0.d',
    ],
    ['a ground of no slot', { ...good, ground: { kind: 'slot' as const, slot: 'gone' } }, 'ground.slot'],
  ])('with %s says so, and where', (_what, bad, path) => {
    const problems = checkRecipe(bad);
    expect(problems.map((problem) => problem.path)).toContain(path);
    expect(problems[0]?.message).toMatch(/[.]$/);
  });

  it('of an unknown version is refused', () => {
    expect(migrateRecipe({ ...good, version: 99 }).ok).toBe(false);
    expect(migrateRecipe(null).ok).toBe(false);
  });

  it('merges colours that it has already', () => {
    const held = [{ id: 'ink', name: 'Ink', colour: '#102030' }];
    const brought = [
      { id: 'x', name: 'Colour 1', colour: '#102030' },
      { id: 'y', name: 'Ink', colour: '#ff0000' },
    ];
    const merged = mergeSlots(
      held,
      { kind: 'line', length: 1, thickness: 1, cap: 'butt', slot: 'x' },
      brought,
    );
    expect(merged.content).toMatchObject({ slot: 'ink' });
    expect(merged.slots.map((slot) => slot.name)).toEqual(['Ink', 'Ink 2']);
    expect(usedSlots({ ...good, ground: { kind: 'slot', slot: 'paper' } })).toEqual(
      new Set(['ink', 'paper']),
    );
  });
});

it('restacking moves a group one place and keeps its order', () => {
  const row = ['a', 'b', 'c', 'd'].map((id) => ({ id }));
  const ids = (items: { id: string }[]): string => items.map((item) => item.id).join('');
  expect(ids(restack(row, new Set(['a', 'b']), 'front'))).toBe('cabd');
  expect(ids(restack(row, new Set(['a', 'b']), 'back'))).toBe('abcd');
  expect(ids(restack(row, new Set(['d']), 'back'))).toBe('abdc');
});

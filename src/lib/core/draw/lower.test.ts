import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { recipe } from '../../../../tests/support/recipes';
import { apply, invert, translation, type Affine } from '../geom/affine';
import { movedPath } from '../geom/path';
import { colourFill, freshFill, gradientFill, type Fill, type PatternFill } from '../recipe/fill';
import { freshGradient } from '../recipe/gradient';
import { freshPage, freshShape, type Shape } from '../recipe/layout';
import { freshMask } from '../recipe/mask';
import { compiledPattern, type PatternLookup } from '../scene/pattern';
import { compileUnit } from '../scene/unit';
import { groundInk, itemsOf, strokeOf, tiledOf, type DrawItem, type GradientInk } from './list';
import { lowerLayout, lowerShape, relowerShape } from './lower';
import { reframed, withBleed } from './reframe';

const art = recipe({ ground: { kind: 'slot', slot: 'paper' } });
const pattern = compiledPattern('waves@1', 'Waves', compileUnit(art), art.slots, [
  { id: 'dusk', name: 'Dusk', colours: { paper: { colour: '#30204a' } } },
]);
const lookup: PatternLookup = (fill) => (fill.pattern === 'waves' ? pattern : null);
const waves = (over: Partial<PatternFill> = {}): PatternFill => ({ ...freshFill('f', 'waves'), ...over });
const shape = (fills: Fill[], over: Partial<Shape> = {}): Shape =>
  freshShape({
    ...{ id: 's', name: 'S', form: { kind: 'rectangle', radius: 0 }, fills },
    ...{ x: 30, y: 20, width: 80, height: 60 },
    ...over,
  });
const items = (fill: Fill): readonly DrawItem[] => itemsOf(lowerShape(shape([fill]), lookup));

/** The same to a millionth of a px. */
const rounded = (of: unknown): unknown =>
  JSON.parse(
    JSON.stringify(of, (key, value: unknown) =>
      key === 'pattern'
        ? (value as { key: string }).key
        : typeof value === 'number'
          ? Math.round(value * 1e6) / 1e6
          : value,
    ),
  );

describe('what a fill draws', () => {
  it('is a path for a colour and a gradient', () => {
    expect(items(colourFill('c', { colour: '#112233' }))).toEqual([
      { kind: 'path', ink: '#112233', opacity: 1 },
    ]);
    const [one] = items(gradientFill('g', freshGradient({ colour: '#112233' }, { colour: '#eeddcc' })));
    expect(one).toMatchObject({ kind: 'path', ink: { kind: 'linear', spread: 'pad' } });
  });

  it('is the ground below the motifs for a pattern, each with an opacity of its own', () => {
    expect(items(waves({ opacity: 0.4, groundOpacity: 0.7 }))).toMatchObject([
      { kind: 'path', ink: '#ffffff', opacity: 0.7 },
      { kind: 'tiled', opacity: 0.4, wash: null, look: null },
    ]);
    // In another colourway, in a colour of the use, and without.
    expect(items(waves({ colourway: 'dusk' }))[0]).toMatchObject({ ink: '#30204a' });
    expect(items(waves({ ground: { kind: 'colour', colour: '#00ff00' } }))[0]).toMatchObject({
      ink: '#00ff00',
    });
    expect(items(waves({ ground: { kind: 'none' } })).map(({ kind }) => kind)).toEqual(['tiled']);
  });

  it('is nothing where it is not shown, and where its pattern is gone', () => {
    const scene = lowerShape(
      shape([waves({ shown: false }), { ...waves(), id: 'g', pattern: 'gone' }, waves({ id: 'h' })]),
      lookup,
    );
    expect(scene.layers.map(({ fill }) => fill)).toEqual(['h']);
    expect(lowerShape(shape([waves()], { hidden: true }), lookup).layers).toEqual([]);
  });
});

describe('the ground of a pattern as an ink', () => {
  const matrices = fc
    .record({
      a: fc.double({ min: -3, max: 3, noNaN: true }),
      b: fc.double({ min: -3, max: 3, noNaN: true }),
      c: fc.double({ min: -3, max: 3, noNaN: true }),
      d: fc.double({ min: -3, max: 3, noNaN: true }),
      e: fc.double({ min: -50, max: 50, noNaN: true }),
      f: fc.double({ min: -50, max: 50, noNaN: true }),
    })
    .filter(({ a, b, c, d }) => Math.abs(a * d - b * c) > 0.05);

  // By the definition: the share of a point of the pattern is its part along the period, whatever skews or reflects the plane.
  it('has the share that the definition gives, under every turn, skew and reflection', () => {
    const stops = [
      { at: 0, colour: '#000000' as const },
      { at: 1, colour: '#ffffff' as const },
    ];
    const number = fc.double({ min: -40, max: 40, noNaN: true });
    fc.assert(
      fc.property(matrices, number, number, number, number, (matrix: Affine, x, y, toX, toY) => {
        fc.pre(Math.hypot(toX, toY) > 1);
        const to = { x: toX, y: toY };
        const ink = groundInk({ colour: '#000000', gradient: { to, stops } }, matrix) as GradientInk;
        const onPage = apply(matrix, { x, y });
        const along = apply(invert(ink.matrix)!, onPage).x;
        expect(along).toBeCloseTo((x * toX + y * toY) / (toX * toX + toY * toY), 6);
        expect(ink.spread).toBe('repeat');
      }),
      { numRuns: 200 },
    );
  });

  it('is a colour where it is one', () => {
    expect(groundInk({ colour: '#abcdef', gradient: null }, translation(3, 4))).toBe('#abcdef');
  });
});

describe('a page as what is drawn on it', () => {
  const stroke = {
    ...{ width: 6, cap: 'butt', join: 'miter', dashes: [] },
    fills: [{ ...waves(), id: 'sf' }],
  } as unknown as NonNullable<Shape['stroke']>;
  const all = shape(
    [waves(), gradientFill('g', freshGradient({ colour: '#112233' }, { colour: '#eeddcc' }))],
    {
      ...{ rotation: 20, mask: freshMask(), stroke },
    },
  );

  it('has its shapes from the bottom up, those that are hidden left out, and strokes above fills', () => {
    const layout = {
      ...freshPage(400, 300),
      shapes: [shape([waves()], { id: 'a' }), shape([waves()], { id: 'b', hidden: true }), all],
    };
    const { shapes } = lowerLayout(layout, lookup);
    expect(shapes.map(({ id }) => id)).toEqual(['a', 's']);
    expect(itemsOf(shapes[1]!).map(({ kind }) => kind)).toEqual(['path', 'tiled', 'path', 'path', 'tiled']);
    expect(strokeOf(shapes[1]!)).toMatchObject({ pen: { width: 6 }, stroke: null, upright: false });
    // A stroke reaches half its width beyond the outline.
    const [own, line] = [shapes[1]!.box, shapes[1]!.stroke!.box];
    expect(line.width - own.width).toBeGreaterThanOrEqual(6);
  });

  it('is the same counted from another corner: every place on the page stays', () => {
    const scene = lowerShape(all, lookup);
    const by = { x: 17, y: -9 };
    const other = reframed(scene, by, movedPath(scene.d, by));
    const placed = (of: typeof scene): { x: number; y: number }[] => [
      ...itemsOf(of).flatMap((item) => {
        const matrices =
          item.kind === 'path' ? (typeof item.ink === 'string' ? [] : [item.ink.matrix]) : [item.matrix];
        return matrices.map((matrix) => apply(matrix, { x: 3, y: 5 }));
      }),
      ...of.masks.flatMap((mask) => (mask.kind === 'gradient' ? [] : [apply(mask.matrix, { x: 3, y: 5 })])),
    ];
    const onPage = (of: typeof scene): number[] =>
      placed(of)
        .flatMap(({ x, y }) => [x + of.x, y + of.y])
        .map((one) => Math.round(one * 1e6) / 1e6);
    expect(onPage(other)).toEqual(onPage(scene));
    expect(onPage(scene).length).toBeGreaterThan(6);
    expect(other.box).toEqual(scene.box);
  });

  it('is drawn anew from what it was where its outline stays, and comes out as if from nothing', () => {
    const before = lowerShape(all, lookup);
    const changes: Partial<Shape>[] = [
      { x: 55.5, y: -3 },
      { fills: [waves({ rotation: 12 })] },
      { stroke: { ...stroke, fills: [] } },
      { stroke: null },
      { mask: null, name: 'Other' },
      { width: 33 },
      { rotation: 45, reflectX: true },
    ];
    for (const change of changes) {
      const now = { ...all, ...change };
      expect(rounded(relowerShape(now, all, before, lookup))).toEqual(rounded(lowerShape(now, lookup)));
    }
    expect(relowerShape({ ...all, x: 0 }, all, before, lookup).d).toBe(before.d);
  });

  it('grows by its bleed on all sides, and everything on it stays where it was on the paper', () => {
    const list = lowerLayout({ ...freshPage(400, 300), shapes: [all] }, lookup);
    const grown = withBleed(list, 12);
    expect([grown.width, grown.height]).toEqual([424, 324]);
    const [one, other] = [list.shapes[0]!, grown.shapes[0]!];
    expect(rounded([other.x - one.x, other.y - one.y, other.box.x - one.box.x])).toEqual([12, 12, 12]);
    expect(other.stroke!.box.y - one.stroke!.box.y).toBeCloseTo(12, 9);
    expect(tiledOf(other).map(({ matrix }) => matrix)).toEqual(tiledOf(one).map(({ matrix }) => matrix));
    expect(withBleed(list, 0)).toBe(list);
  });
});

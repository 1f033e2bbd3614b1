import type { Fill, PatternFill } from '../../src/lib/core/recipe/fill';
import { freshFill } from '../../src/lib/core/recipe/fill';
import { freshShape, type Shape } from '../../src/lib/core/recipe/layout';
import { LIMITS } from '../../src/lib/core/recipe/limits';
import {
  MEASURED,
  MEASURED_FORMS,
  type Measured,
  type MeasuredForm,
} from '../../src/lib/core/recipe/measured';
import { PLANE_GROUPS } from '../../src/lib/core/lattice/groups';
import { BLEND_MODES } from '../../src/lib/core/colour/blend';
import type {
  ComposedRecipe,
  DrawingElement,
  MeasuredRecipe,
  Motif,
  Recipe,
} from '../../src/lib/core/recipe/recipe';
import type { Repeat } from '../../src/lib/core/lattice/repeat';
import { place, recipe } from '../support/recipes';

/** Recipes, fills and shapes whose numbers are all allowed one by one, at their ends more often than not. */
export type Random = () => number;
type Range = { least: number; most: number };

export const pick = <T>(random: Random, list: readonly T[]): T =>
  list[Math.floor(random() * list.length)] as T;

/** A number of a range: an end, the middle, or anywhere by its order of magnitude. */
export function extreme(random: Random, { least, most }: Range): number {
  const kind = random();
  if (kind < 0.25) return least;
  if (kind < 0.5) return most;
  if (least > 0) return least * (most / least) ** random();
  return least + (most - least) * random();
}

export const hex = (random: Random): string =>
  `#${Math.floor(random() * 0xffffff)
    .toString(16)
    .padStart(6, '0')}`;

export function extremeMeasured(
  random: Random,
  form: MeasuredForm = pick(random, MEASURED_FORMS),
): MeasuredRecipe {
  const spec = MEASURED[form];
  const measured: Measured = {
    form,
    numbers: Object.fromEntries(
      spec.numbers.map((one) => [one.key, random() < 0.3 ? one.start : extreme(random, one)]),
    ),
    choices: Object.fromEntries(spec.choices.map(({ key, options }) => [key, pick(random, options)[0]])),
    inks: Object.fromEntries(spec.inks.map(({ key }) => [key, 'ink'])),
    bands: spec.hasBands
      ? Array.from({ length: 1 + Math.floor(random() * LIMITS.bands) }, () => ({
          width: extreme(random, { least: 0.01, most: LIMITS.unitSide.most }),
          slot: random() < 0.3 ? null : 'ink',
        }))
      : [],
  };
  const { slots, measure, version } = recipe();
  return { kind: 'measured', version, measure, measured, ground: { kind: 'clear' }, slots };
}

function extremeRepeat(random: Random): Repeat {
  const step = extreme(random, { least: 0, most: 1 });
  const run = pick(random, ['progressive', 'alternating'] as const);
  const cut = random() < 0.5;
  return pick<Repeat>(random, [
    { kind: 'straight' },
    { kind: 'brick', step, run },
    { kind: 'half-drop', step, run },
    { kind: 'mirror', cut },
    { kind: 'group', group: pick(random, PLANE_GROUPS), slant: extreme(random, { least: -2, most: 2 }), cut },
  ]);
}

function extremeElement(random: Random): DrawingElement {
  const side = extreme(random, { least: 0.01, most: 500_000 });
  const far = random() < 0.3 ? extreme(random, { least: -900_000, most: 900_000 }) : 0;
  const d = pick(random, [
    `M${far} 0h${side}v${side}z`,
    `M0 ${far}C0 ${side} ${side} ${side} ${side} 0z`,
    `M${far} ${far}L${side} 0`,
    'M0 0',
    `M0 0${'l1 3l1 -3'.repeat(Math.floor(random() * 2000))}z`,
  ]);
  return {
    d,
    fill: random() < 0.7 ? 'ink' : null,
    fillRule: 'nonzero',
    stroke:
      random() < 0.5
        ? {
            slot: 'paper',
            width: extreme(random, { least: 0.001, most: 1e6 }),
            cap: pick(random, ['butt', 'round', 'square'] as const),
            join: pick(random, ['miter', 'round', 'bevel'] as const),
            miterLimit: extreme(random, { least: 1, most: 1000 }),
            dashes:
              random() < 0.4
                ? [extreme(random, { least: 0, most: 1e6 }), extreme(random, { least: 0.000_01, most: 10 })]
                : [],
          }
        : null,
    opacity: pick(random, [0, 0.5, 1]),
    ...(random() < 0.4 ? { clip: { d: `M${far} 0h${side}v${side / 2}z`, rule: 'evenodd' as const } } : {}),
  };
}

function extremeMotif(random: Random, id: string): Motif {
  const side = () => extreme(random, LIMITS.shapeSide);
  const content = pick<Motif['content']>(random, [
    {
      kind: 'form',
      form: { kind: 'rectangle', radius: extreme(random, { least: 0, most: 1e6 }) },
      width: side(),
      height: side(),
      slot: 'ink',
    },
    {
      kind: 'form',
      form: { kind: 'star', points: 60, inner: extreme(random, LIMITS.starInner) },
      width: side(),
      height: side(),
      slot: 'ink',
    },
    { kind: 'line', length: side(), thickness: side(), cap: 'round', slot: 'paper' },
    {
      kind: 'drawing',
      asset: null,
      width: side(),
      height: side(),
      elements: Array.from({ length: 1 + Math.floor(random() * 6) }, () => extremeElement(random)),
    },
  ]);
  const shade = () => ({
    slot: 'ink',
    angle: 45,
    distance: extreme(random, LIMITS.effect),
    blur: extreme(random, LIMITS.effect),
    opacity: 0.5,
  });
  const effects =
    random() < 0.3
      ? {
          drop: shade(),
          ...(random() < 0.5 ? { inner: shade() } : {}),
          relief: {
            angle: 30,
            height: extreme(random, LIMITS.effect),
            softness: extreme(random, LIMITS.effect),
            strength: 1,
          },
        }
      : undefined;
  return { id, name: id, content, ...(effects ? { effects } : {}) };
}

export function extremeComposed(random: Random): ComposedRecipe {
  const motifs = Array.from({ length: 1 + Math.floor(random() * 3) }, (_, index) =>
    extremeMotif(random, `m${index}`),
  );
  const count = pick(random, [1, 2, 20, 400]);
  return recipe({
    unit: { width: extreme(random, LIMITS.unitSide), height: extreme(random, LIMITS.unitSide) },
    gap: {
      across: extreme(random, { least: 0, most: 200 }),
      down: random() < 0.5 ? 0 : extreme(random, LIMITS.gap),
    },
    repeat: extremeRepeat(random),
    motifs,
    placings: Array.from({ length: count }, (_, index) =>
      place(
        pick(random, motifs).id,
        extreme(random, { least: -500, most: 500 }),
        extreme(random, { least: -500, most: 500 }),
        {
          id: `p${index}`,
          rotation: extreme(random, { least: -360, most: 360 }),
          scaleX: extreme(random, LIMITS.placingScale),
          scaleY: random() < 0.7 ? 1 : extreme(random, LIMITS.placingScale),
          opacity: pick(random, [0.3, 1, 1]),
        },
      ),
    ),
    ground: pick(random, [{ kind: 'clear' as const }, { kind: 'slot' as const, slot: 'paper' }]),
  });
}

export const extremeRecipe = (random: Random): Recipe =>
  random() < 0.5 ? extremeMeasured(random) : extremeComposed(random);

export function extremeFill(random: Random, id: string, pattern: string): Fill {
  const base = freshFill(id, pattern);
  const numbers: Partial<PatternFill> = {
    scaleX: extreme(random, LIMITS.scale),
    scaleY: random() < 0.5 ? 1 : extreme(random, LIMITS.scale),
    rotation: extreme(random, { least: -360, most: 360 }),
    skew: random() < 0.7 ? 0 : extreme(random, LIMITS.skew),
    offset: { x: extreme(random, LIMITS.place), y: 0 },
    opacity: pick(random, [0, 0.4, 1]),
    blend: pick(random, BLEND_MODES),
    reflectX: random() < 0.3,
  };
  const gradient = {
    kind: pick(random, ['linear', 'radial'] as const),
    from: { x: extreme(random, { least: -100, most: 100 }), y: 0 },
    to: { x: 1, y: extreme(random, { least: -100, most: 100 }) },
    stops: [
      { at: 0, colour: hex(random), opacity: 0 },
      { at: 1, colour: hex(random), opacity: 1 },
    ],
  };
  if (random() < 0.15) return { ...base, ...numbers, wash: gradient } as Fill;
  if (random() < 0.15) return { ...base, ...numbers, mask: { kind: 'gradient', gradient } } as Fill;
  if (random() < 0.15) return { ...base, ...numbers, mask: paintedMask(random) } as Fill;
  return { ...base, ...numbers } as Fill;
}

const paintedMask = (random: Random) => ({
  kind: 'painted' as const,
  matrix: { a: extreme(random, { least: 0.001, most: 1000 }), b: 0, c: 0, d: 1, e: 0, f: 0 },
  strokes: Array.from({ length: pick(random, [1, 10, 300]) }, () => ({
    mode: 'erase' as const,
    size: extreme(random, { least: 0.01, most: 200_000 }),
    softness: pick(random, [0, 1]),
    strength: 1,
    points: Array.from({ length: 2 * pick(random, [1, 5, 200]) }, () =>
      extreme(random, { least: -1e6, most: 1e6 }),
    ),
  })),
});

export function extremeShape(random: Random, id: string, pattern: string): Shape {
  const side = () => extreme(random, LIMITS.shapeSide);
  const [width, height] = [side(), side()];
  const line = Array.from({ length: 2 * pick(random, [1, 3, 500]) }, () =>
    extreme(random, { least: -1e4, most: 1e4 }),
  );
  return freshShape({
    id,
    name: id,
    form: pick<Shape['form']>(random, [
      { kind: 'rectangle', radius: extreme(random, { least: 0, most: 1e6 }) },
      { kind: 'ellipse' },
      { kind: 'star', points: 60, inner: 0.5 },
      { kind: 'path', d: `M0 0${'l5 9l5 -9'.repeat(pick(random, [1, 900]))}z`, width: 100, height: 100 },
      {
        kind: 'brush',
        points: line,
        size: extreme(random, { least: 0.01, most: 5000 }),
        softness: pick(random, [0, 1]),
        width: 100,
        height: 100,
      },
    ]),
    x: extreme(random, { least: -1000, most: 1000 }),
    y: extreme(random, { least: -1000, most: 1000 }),
    width,
    height,
    rotation: extreme(random, { least: -360, most: 360 }),
    skew: random() < 0.7 ? 0 : extreme(random, LIMITS.skew),
    fills: Array.from({ length: pick(random, [1, 1, 2, 6]) }, (_, index) =>
      extremeFill(random, `${id}f${index}`, pattern),
    ),
    stroke:
      random() < 0.3
        ? {
            width: extreme(random, LIMITS.strokeWidth),
            cap: 'round',
            join: 'miter',
            dashes: random() < 0.5 ? [extreme(random, { least: 0.000_1, most: 1e5 })] : [],
            fills: [extremeFill(random, `${id}s`, pattern)],
          }
        : null,
  });
}

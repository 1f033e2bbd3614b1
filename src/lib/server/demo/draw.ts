import type { ColourSlot } from '../../core/colour/slots';
import type { ShapeForm } from '../../core/geom/shapes';
import { toPx, type LengthUnit } from '../../core/num/length';
import { FRONT, type Front, type Repeat } from '../../core/lattice/repeat';
import { MEASURED, startMeasured, type MeasuredForm } from '../../core/recipe/measured';
import {
  RECIPE_VERSION,
  emptyRecipe,
  type ComposedRecipe,
  type DrawingElement,
  type Ground,
  type LineCap,
  type MeasuredRecipe,
  type Motif,
  type Placing,
  type Recipe,
} from '../../core/recipe/recipe';
import { scatter, type ScatterPlan } from '../../core/scene/scatter';

/** The made-up palette of the demo. */
export const COLOURS = {
  'Deep water': '#10394d',
  Pool: '#2f8fab',
  Shallow: '#8fc7cf',
  Foam: '#e0f0ec',
  Chalk: '#f8f4e8',
  Buoy: '#e5572e',
  Lotion: '#f3c14b',
  Slate: '#3c4549',
  Rope: '#d8c59b',
  Tar: '#7a5c34',
  Night: '#101f2e',
  Plum: '#57213f',
  Moss: '#5d7a52',
} as const;

export type ColourName = keyof typeof COLOURS;

/** Millimetres → px. */
export const mm = (value: number): number => toPx(value, 'mm');

/** A slot id from a colour's name. */
export const slotOf = (name: ColourName): string => name.toLowerCase().replace(' ', '-');

export const slots = (...names: ColourName[]): ColourSlot[] =>
  names.map((name) => ({ id: slotOf(name), name, colour: COLOURS[name] }));

/** A built-in form, sizes in mm. */
export function form(
  id: string,
  name: string,
  shape: ShapeForm,
  width: number,
  height: number,
  colour: ColourName,
): Motif {
  return {
    id,
    name,
    content: { kind: 'form', form: shape, width: mm(width), height: mm(height), slot: slotOf(colour) },
  };
}

export const block = (
  id: string,
  name: string,
  width: number,
  height: number,
  colour: ColourName,
  radius = 0,
): Motif => form(id, name, { kind: 'rectangle', radius: mm(radius) }, width, height, colour);

export const dot = (id: string, name: string, diameter: number, colour: ColourName): Motif =>
  form(id, name, { kind: 'ellipse' }, diameter, diameter, colour);

/** A straight line, sizes in mm. */
export function line(
  id: string,
  name: string,
  length: number,
  thickness: number,
  colour: ColourName,
  cap: LineCap = 'butt',
): Motif {
  return {
    id,
    name,
    content: { kind: 'line', length: mm(length), thickness: mm(thickness), cap, slot: slotOf(colour) },
  };
}

/** A drawing about (0, 0) from paths in mm. */
export function drawing(
  id: string,
  name: string,
  width: number,
  height: number,
  elements: DrawingElement[],
): Motif {
  return {
    id,
    name,
    content: { kind: 'drawing', asset: null, width: mm(width), height: mm(height), elements },
  };
}

/** A filled path; `d` in mm with absolute commands and spaces between all numbers. */
export function filled(d: string, colour: ColourName): DrawingElement {
  return { d: inPx(d), fill: slotOf(colour), fillRule: 'nonzero', stroke: null, opacity: 1 };
}

/** A stroked path; `d` and `width` in mm. */
export function stroked(d: string, colour: ColourName, width: number, cap: LineCap = 'butt'): DrawingElement {
  const stroke = {
    slot: slotOf(colour),
    width: mm(width),
    cap,
    join: 'round' as const,
    miterLimit: 4,
    dashes: [],
  };
  return { d: inPx(d), fill: null, fillRule: 'nonzero', stroke, opacity: 1 };
}

/** A placing at (x, y) mm. */
export function at(motif: string, x: number, y: number, rotation = 0, scale = 1, scaleY = scale): Placing {
  return {
    id: `${motif}-${x}-${y}`.replaceAll('.', '_'),
    motif,
    x: mm(x),
    y: mm(y),
    rotation,
    scaleX: scale,
    scaleY,
    opacity: 1,
  };
}

export type PatternPlan = {
  width: number;
  height: number;
  repeat?: Repeat;
  front?: Front;
  /** In place of the plain ground: a gradient between colours, each at its share. */
  fade?: { along: 'across' | 'down' | 'round'; stops: [number, ColourName][] };
  /** More placings at random places that keep their distance. */
  scatter?: Omit<ScatterPlan, 'spacing'> & { spacing: number };
  gap?: [number, number];
  ground: ColourName | null;
  colours: ColourName[];
  motifs: Motif[];
  placings: Placing[];
};

export type DemoPattern = { name: string; description: string; plan: PatternPlan | MeasuredRecipe };

type MeasuredPlan = {
  /** Lengths in `measure`, angles in degrees, shares 0 to 1. */
  numbers: Record<string, number>;
  choices?: Record<string, string>;
  inks?: ColourName[];
  bands?: [number, ColourName | null][];
  ground: ColourName | null;
  measure?: LengthUnit;
};

/** A measured pattern from numbers. */
export function measured(form: MeasuredForm, plan: MeasuredPlan): MeasuredRecipe {
  const { measure = 'mm', inks = [], bands = [], ground } = plan;
  const px = (value: number): number => toPx(value, measure);
  const start = startMeasured(form, inks.map(slotOf));
  const lengths = new Set(
    MEASURED[form].numbers.flatMap(({ key, kind }) => (kind === 'length' ? [key] : [])),
  );
  const numbers = Object.entries(plan.numbers).map(([key, value]) => [
    key,
    lengths.has(key) ? px(value) : value,
  ]);
  const used = new Set([...inks, ...bands.flatMap(([, name]) => name ?? []), ...(ground ? [ground] : [])]);
  return {
    kind: 'measured',
    version: RECIPE_VERSION,
    measure,
    measured: {
      ...start,
      numbers: { ...start.numbers, ...(Object.fromEntries(numbers) as Record<string, number>) },
      choices: { ...start.choices, ...plan.choices },
      bands: bands.map(([width, name]) => ({ width: px(width), slot: name && slotOf(name) })),
    },
    ground: ground === null ? { kind: 'clear' } : { kind: 'slot', slot: slotOf(ground) },
    slots: slots(...used),
  };
}

/** A motif with shadows and relief, sizes in mm. */
export function raised(motif: Motif, height: number, shadow: ColourName | null): Motif {
  const drop = shadow && {
    slot: slotOf(shadow),
    angle: 55,
    distance: mm(height * 1.6),
    blur: mm(height * 1.2),
    opacity: 0.35,
  };
  const relief = { angle: 225, height: mm(height), softness: mm(height * 0.8), strength: 0.5 };
  return { ...motif, effects: { relief, ...(drop ? { drop } : {}) } };
}

/** A recipe from a plan in mm. */
export function recipeOf(plan: PatternPlan | MeasuredRecipe): Recipe {
  if ('kind' in plan) return plan;
  const base: ComposedRecipe = {
    ...emptyRecipe('mm', { width: mm(plan.width), height: mm(plan.height) }),
    gap: { across: mm(plan.gap?.[0] ?? 0), down: mm(plan.gap?.[1] ?? 0) },
    repeat: plan.repeat ?? { kind: 'straight' },
    front: plan.front ?? FRONT,
    ground: groundOf(plan),
    slots: slots(...plan.colours),
    motifs: plan.motifs,
    placings: plan.placings,
  };
  if (!plan.scatter) return base;
  let count = 0;
  const { placings } = scatter(
    base,
    { ...plan.scatter, spacing: mm(plan.scatter.spacing) },
    () => `scattered-${(count += 1)}`,
  );
  return { ...base, placings: [...base.placings, ...placings] };
}

function groundOf({ ground, fade }: PatternPlan): Ground {
  if (!fade) return ground === null ? { kind: 'clear' } : { kind: 'slot', slot: slotOf(ground) };
  const stops = fade.stops.map(([at, name]) => ({ at, slot: slotOf(name) }));
  if (fade.along === 'round') return { kind: 'radial', radius: 0.5, stops };
  return { kind: 'linear', along: fade.along, stops };
}

export const BRICK: Repeat = { kind: 'brick', step: 0.5, run: 'progressive' };
export const HALF_DROP: Repeat = { kind: 'half-drop', step: 0.5, run: 'progressive' };

/** A piece of a ring between two radii and two angles (degrees), as path data in mm. */
export function ringPiece(inner: number, outer: number, from: number, to: number): string {
  const point = (radius: number, degrees: number): string => {
    const angle = (degrees * Math.PI) / 180;
    return `${(radius * Math.cos(angle)).toFixed(4)} ${(radius * Math.sin(angle)).toFixed(4)}`;
  };
  const large = to - from > 180 ? 1 : 0;
  const back =
    inner > 0 ? `L ${point(inner, to)} A ${inner} ${inner} 0 ${large} 0 ${point(inner, from)}` : 'L 0 0';
  return `M ${point(outer, from)} A ${outer} ${outer} 0 ${large} 1 ${point(outer, to)} ${back} Z`;
}

/** A wave through one width, crest at the ends and trough in the middle (negative `rise`: the other way), in mm. */
export function wave(width: number, rise: number, y = 0): string {
  const half = width / 2;
  const bend = half * 0.3642;
  return [
    `M ${-half} ${y - rise}`,
    `C ${-half + bend} ${y - rise} ${-bend} ${y + rise} 0 ${y + rise}`,
    `C ${bend} ${y + rise} ${half - bend} ${y - rise} ${half} ${y - rise}`,
  ].join(' ');
}

/** Path data in mm → px. Arc flags and angles are left alone. */
function inPx(d: string): string {
  const tokens = d.trim().split(/\s+/);
  let command = '';
  let place = 0;
  return tokens
    .map((token) => {
      if (/^[A-Za-z]$/.test(token)) {
        command = token;
        place = 0;
        return token;
      }
      const index = place++ % 7;
      if (command === 'A' && index >= 2 && index <= 4) return token;
      return String(mm(Number(token)));
    })
    .join(' ');
}

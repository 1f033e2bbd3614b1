import type { Affine } from '../geom/affine';
import { chain, rotation, scaling, translation } from '../geom/affine';
import type { FillRule } from '../geom/path';
import type { Point } from '../geom/point';
import type { ShapeForm } from '../geom/shapes';
import type { ColourSlot } from '../colour/slots';
import { FRONT, type Front, type Gap, type Repeat, type Size } from '../lattice/repeat';
import type { LengthUnit } from '../num/length';
import type { CutFrom } from './cut-out';
import type { Measured } from './measured';
import type { Pictured, PictureLay } from './pictured';

/** The version that new recipes are written in. `migrate.ts` knows the older ones. */
export const RECIPE_VERSION = 2;

/** What a pattern is made from: placed motifs, numbers alone, or a picture. Lengths are CSS px; `measure` is how people read them. */
export type Recipe = ComposedRecipe | MeasuredRecipe | PicturedRecipe;

/** Motifs placed in a unit. Placings lie in stack order, the last one in front. */
export type ComposedRecipe = {
  kind: 'composed';
  version: typeof RECIPE_VERSION;
  measure: LengthUnit;
  unit: Size;
  gap: Gap;
  repeat: Repeat;
  front: Front;
  ground: Ground;
  slots: ColourSlot[];
  motifs: Motif[];
  placings: Placing[];
  aids: Aids;
  /** How the whole plane lies: turned, mirrored or skewed, no move and no change of area. Absent: upright. */
  lie?: Affine;
};

/** A pattern made from exact numbers: stripes, dots, checks and their like. */
export type MeasuredRecipe = {
  kind: 'measured';
  version: typeof RECIPE_VERSION;
  measure: LengthUnit;
  measured: Measured;
  ground: Ground;
  slots: ColourSlot[];
};

/** A pattern made from a picture: its steps, how its units are laid, and the size of one in px. */
export type PicturedRecipe = {
  kind: 'pictured';
  version: typeof RECIPE_VERSION;
  measure: LengthUnit;
  pictured: Pictured;
  lay: PictureLay;
  unit: Size;
  ground: Ground;
  slots: ColourSlot[];
};

/**
 * What lies behind the motifs: one slot's colour, a gradient that the unit's repeat closes, or nothing. A linear one
 * runs once over the unit and comes back to its first stop; a radial one fades from its first stop in the unit's
 * middle to its last, which is the colour of everything beyond `radius` (a share of the unit's shorter side).
 */
export type Ground =
  | { kind: 'clear' }
  | { kind: 'slot'; slot: string }
  | { kind: 'linear'; along: 'across' | 'down'; stops: GroundStop[] }
  | { kind: 'radial'; radius: number; stops: GroundStop[] };

/** `at` is 0 to 1 along the gradient. */
export type GroundStop = { at: number; slot: string };

/** What helps at work and is never drawn: the grid (pitch in px) and guides, in px from the unit's upper left corner. */
export type Aids = { grid: number; showGrid: boolean; snap: boolean; guides: Guide[] };

/** A line at `at`: `x` stands upright, `y` lies flat. */
export type Guide = { axis: 'x' | 'y'; at: number };

/** A drawn or imported piece about (0, 0). All placings of it follow it. */
export type Motif = {
  id: string;
  name: string;
  content: MotifContent;
  effects?: MotifEffects;
  credit?: Credit;
  guides?: Guide[];
};

/** Where a motif comes from and under what licence. */
export type Credit = { author: string; source: string; licence: string };

export type MotifContent =
  | { kind: 'form'; form: ShapeForm; width: number; height: number; slot: string }
  | { kind: 'line'; length: number; thickness: number; cap: LineCap; slot: string }
  | { kind: 'drawing'; asset: string | null; width: number; height: number; elements: DrawingElement[] };

export type LineCap = 'butt' | 'round' | 'square';
export type LineJoin = 'miter' | 'round' | 'bevel';

/**
 * One path of a drawing in px about the motif's middle, already through every transform of its file. `source` is what
 * the editor made it from, for going on by numbers; `d` alone is drawn.
 */
export type DrawingElement = {
  d: string;
  fill: Paint | null;
  fillRule: FillRule;
  stroke: Stroke | null;
  opacity: number;
  picture?: PicturePaint;
  clip?: { d: string; rule: FillRule };
  source?: ElementSource;
};

export type { FillRule };

/** A slot's colour, or a gradient between slots. */
export type Paint = string | GradientPaint;

/** A gradient in motif px: from (0,0) to (1,0), or over the unit circle, taken through `matrix`. */
export type GradientPaint = {
  kind: 'linear' | 'radial';
  matrix: Affine;
  stops: { at: number; slot: string; opacity: number }[];
  spread: 'pad' | 'reflect' | 'repeat';
  /** Of a radial one: where its first stop lies within the unit circle; the middle where it is not said. */
  focus?: Point;
};

/**
 * A picture that fills the element's path: `matrix` takes its pixels (0 … width, 0 … height) to motif px. `clear` says
 * that one can see through some of it; `slots` are what the numbers of a numbered picture stand for, in their order; `cut`
 * is what it was cut out of, how, and where it lay there, for going on with that.
 */
export type PicturePaint = {
  asset: string;
  width: number;
  height: number;
  matrix: Affine;
  clear?: boolean;
  slots?: readonly string[];
  cut?: CutFrom;
};

export type ElementSource =
  | { kind: 'form'; form: ShapeForm; x: number; y: number; width: number; height: number; rotation: number }
  | { kind: 'text'; text: string; font: string; size: number; x: number; y: number; rotation: number };

export type Stroke = {
  slot: string;
  width: number;
  cap: LineCap;
  join: LineJoin;
  miterLimit: number;
  dashes: number[];
  /** How far into the dashes the line begins, px. */
  dashOffset?: number;
};

/**
 * Shadows and relief of a motif, in px of the unit: they fall in one direction however a placing is turned.
 * `angle` is where the light comes from or the shadow falls to, in degrees clockwise from the right.
 */
export type MotifEffects = {
  drop?: ShadowEffect;
  inner?: ShadowEffect;
  relief?: ReliefEffect;
};

export type ShadowEffect = { slot: string; angle: number; distance: number; blur: number; opacity: number };

/** `height` is how far the edge rises, `softness` how far its rounding reaches in (0 is a hard bevel). */
export type ReliefEffect = { angle: number; height: number; softness: number; strength: number };

/** One motif put into the unit: its middle at (x, y) px from the unit's upper left corner, turned clockwise in degrees. */
export type Placing = {
  id: string;
  motif: string;
  x: number;
  y: number;
  rotation: number;
  /** A negative scale mirrors. */
  scaleX: number;
  scaleY: number;
  opacity: number;
};

/** A motif placed at a point of the unit: upright and opaque, at `scale` to both sides. */
export const freshPlacing = (id: string, motif: string, { x, y }: Point, scale = 1): Placing => ({
  ...{ id, motif, x, y, rotation: 0 },
  ...{ scaleX: scale, scaleY: scale, opacity: 1 },
});

/** Motif space → unit space. */
export function placingMatrix(placing: Placing): Affine {
  return chain(
    translation(placing.x, placing.y),
    rotation(placing.rotation),
    scaling(placing.scaleX, placing.scaleY),
  );
}

/** The width and height of a motif before any placing scales it, in px. */
export function motifSize(content: MotifContent): Size {
  if (content.kind === 'line') return { width: content.length, height: content.thickness };
  return { width: content.width, height: content.height };
}

/** Whether there is a picture in a motif. */
export const showsPicture = (content: MotifContent): boolean =>
  content.kind === 'drawing' && content.elements.some(({ picture }) => picture !== undefined);

/** No grid shown, nothing snaps: what a recipe starts with; 5 mm. */
export const PLAIN_AIDS: Aids = { grid: (5 * 96) / 25.4, showGrid: false, snap: false, guides: [] };

/** An empty, clear unit without gaps, laid straight. */
export function emptyRecipe(measure: LengthUnit, unit: Size): ComposedRecipe {
  return {
    kind: 'composed',
    version: RECIPE_VERSION,
    measure,
    unit,
    gap: { across: 0, down: 0 },
    repeat: { kind: 'straight' },
    front: FRONT,
    ground: { kind: 'clear' },
    slots: [],
    motifs: [],
    placings: [],
    aids: PLAIN_AIDS,
  };
}

/** The slots of a ground, in the order of a gradient's stops. */
export function groundSlots(ground: Ground): string[] {
  if (ground.kind === 'slot') return [ground.slot];
  return ground.kind === 'clear' ? [] : ground.stops.map((stop) => stop.slot);
}

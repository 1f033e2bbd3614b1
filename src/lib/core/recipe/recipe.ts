import type { Affine } from '../geom/affine';
import { chain, rotation, scaling, translation } from '../geom/affine';
import type { ShapeForm } from '../geom/shapes';
import type { ColourSlot } from '../colour/slots';
import type { Gap, Repeat, Size } from '../lattice/repeat';
import type { LengthUnit } from '../num/length';

/** The version that new recipes are written in. `migrate.ts` knows the older ones. */
export const RECIPE_VERSION = 1;

/**
 * What a pattern is made from. Lengths are CSS px; `measure` is the unit in which people read them. Placings lie in
 * stack order, the last one in front.
 */
export type Recipe = {
  kind: 'composed';
  version: typeof RECIPE_VERSION;
  measure: LengthUnit;
  unit: Size;
  gap: Gap;
  repeat: Repeat;
  ground: Ground;
  slots: ColourSlot[];
  motifs: Motif[];
  placings: Placing[];
};

/** What lies behind the motifs: one slot's colour, or nothing. */
export type Ground = { kind: 'clear' } | { kind: 'slot'; slot: string };

/** A drawn or imported piece, its middle at (0, 0). All placings of it follow it. */
export type Motif = { id: string; name: string; content: MotifContent };

export type MotifContent =
  | { kind: 'form'; form: ShapeForm; width: number; height: number; slot: string }
  | { kind: 'line'; length: number; thickness: number; cap: LineCap; slot: string }
  | { kind: 'drawing'; asset: string | null; width: number; height: number; elements: DrawingElement[] };

export type LineCap = 'butt' | 'round' | 'square';
export type LineJoin = 'miter' | 'round' | 'bevel';

/** A path of an imported drawing, in px about the motif's middle, already through every transform of its file. */
export type DrawingElement = {
  d: string;
  fill: string | null;
  fillRule: 'nonzero' | 'evenodd';
  stroke: Stroke | null;
  opacity: number;
};

export type Stroke = {
  slot: string;
  width: number;
  cap: LineCap;
  join: LineJoin;
  miterLimit: number;
  dashes: number[];
};

/** One motif put into the unit: its middle at (x, y) px from the unit's upper left corner, turned clockwise in degrees. */
export type Placing = {
  id: string;
  motif: string;
  x: number;
  y: number;
  rotation: number;
  scaleX: number;
  scaleY: number;
};

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

import type { Affine } from '../geom/affine';
import { IDENTITY } from '../geom/affine';
import type { Gradient } from './gradient';

/**
 * A soft mask: how much of a shape or of one fill shows, from 0 to 1 at each place. `matrix` takes mask px to the
 * shape's frame px, so that a mask can be moved, turned and stretched without losing what it was made from.
 */
export type Mask = PaintedMask | GradientMask | PictureMask;

/** Strokes of a round brush, in order, over a mask that shows everything, or nothing where it `starts` hidden. */
export type PaintedMask = {
  kind: 'painted';
  matrix: Affine;
  strokes: readonly MaskStroke[];
  starts?: 'hidden';
};

/**
 * One stroke: `points` are x, y, x, y … in mask px, `size` the brush's diameter in mask px. Softness 0 is a hard rim, 1
 * fades from the middle to the rim; strength 1 erases or restores wholly. A stroke crosses itself without adding up.
 */
export type MaskStroke = {
  mode: 'erase' | 'restore';
  size: number;
  softness: number;
  strength: number;
  points: readonly number[];
};

/** The opacities of a gradient over the frame; its colours do not count. */
export type GradientMask = { kind: 'gradient'; gradient: Gradient };

/** A picture whose light shows and whose dark hides; `matrix` takes its pixels to frame px. Outside it hides. */
export type PictureMask = {
  kind: 'picture';
  matrix: Affine;
  asset: string;
  width: number;
  height: number;
  inverted: boolean;
};

/** A painted mask that shows everything. */
export const freshMask = (): PaintedMask => ({ kind: 'painted', matrix: IDENTITY, strokes: [] });

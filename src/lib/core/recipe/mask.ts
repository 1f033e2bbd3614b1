import { about, chain, IDENTITY, rotation, scaling, translation, type Affine } from '../geom/affine';
import { directionDegrees, type Point } from '../geom/point';
import type { Gradient } from './gradient';
import type { BrushStroke } from '../geom/brush-stroke';

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

/** One stroke, in mask px: it takes away, or gives back. */
export type MaskStroke = BrushStroke & { mode: 'erase' | 'restore' };

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

/** A mask that lies on its frame by a matrix of its own. */
export type PlacedMask = PaintedMask | PictureMask;

/** How a mask lies: its corner in px of the frame, its scale as a factor, its turn in degrees clockwise. */
export type MaskPlace = { x: number; y: number; scale: number; turn: number };

export const maskPlace = ({ matrix: { a, b, e, f } }: PlacedMask): MaskPlace => ({
  x: e,
  y: f,
  scale: Math.hypot(a, b),
  turn: directionDegrees({ x: a, y: b }),
});

/** The mask laid anew: it is scaled and turned about `centre` (frame px), and moved to where its corner shall lie. */
export function layMask<T extends PlacedMask>(mask: T, to: Partial<MaskPlace>, centre: Point): T {
  const from = maskPlace(mask);
  const turned = about(
    centre,
    chain(
      rotation((to.turn ?? from.turn) - from.turn),
      scaling((to.scale ?? from.scale) / (from.scale || 1)),
    ),
  );
  const laid = chain(turned, mask.matrix);
  const moved = chain(translation((to.x ?? laid.e) - laid.e, (to.y ?? laid.f) - laid.f), laid);
  return { ...mask, matrix: moved };
}

import { chain, compose, translation, type Affine } from '../geom/affine';
import type { Point } from '../geom/point';
import type { PictureLook } from '../colour/look';
import type { Tint } from '../colour/tint';

export const FILL_VERSION = 2;

/**
 * One use of a pattern, or of a plain colour, on a shape. Nothing in it touches the pattern or the shape.
 * Opacities are 0 to 1, angles degrees clockwise, lengths px.
 */
export type Fill = PatternFill | ColourFill;

export type ColourFill = Tint & {
  kind: 'colour';
  version: typeof FILL_VERSION;
  id: string;
  opacity: number;
};

export type PatternFill = {
  kind: 'pattern';
  version: typeof FILL_VERSION;
  id: string;
  pattern: string;
  /** The revision number at which this use is held; `null` follows the newest. */
  held: number | null;
  scaleX: number;
  scaleY: number;
  rotation: number;
  skew: number;
  /** How far the pattern has been slid from its anchor. */
  offset: Point;
  /** The anchor, from the upper left corner of the shape's frame. Reshaping moves it so that the pattern stays. */
  anchor: Point;
  /** Opacity of the motifs; the ground has its own. */
  opacity: number;
  ground: FillGround;
  groundOpacity: number;
  /** The pattern's colourway that this use shows; `null` shows the pattern's own colours. */
  colourway: string | null;
  /** Colours of this use by slot; slots that are not named keep the colour of the colourway or the pattern. */
  colours: Readonly<Record<string, Tint>>;
  /** How this use recolours the pattern's pictures; absent where they stay as they are. */
  look?: PictureLook;
};

/** What lies under the pattern on this shape: the pattern's own ground, nothing, or another colour. */
export type FillGround = { kind: 'own' } | { kind: 'none' } | ({ kind: 'colour' } & Tint);

/** A fresh use of a pattern: at its own size and colours, upright, its corner on the shape's corner. */
export function freshFill(id: string, pattern: string): PatternFill {
  return {
    kind: 'pattern',
    version: FILL_VERSION,
    id,
    pattern,
    held: null,
    scaleX: 1,
    scaleY: 1,
    rotation: 0,
    skew: 0,
    offset: { x: 0, y: 0 },
    anchor: { x: 0, y: 0 },
    opacity: 1,
    ground: { kind: 'own' },
    groundOpacity: 1,
    colourway: null,
    colours: {},
  };
}

/** Pattern space → the shape's frame (axes of the page, origin at the frame's upper left corner). */
export function fillMatrix(fill: PatternFill): Affine {
  return chain(translation(fill.anchor.x + fill.offset.x, fill.anchor.y + fill.offset.y), compose(fill));
}

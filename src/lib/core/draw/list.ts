import type { BlendMode } from '../colour/blend';
import type { PictureLook } from '../colour/look';
import type { Hex } from '../colour/parse';
import { invert, meanScale, multiply, translation, type Affine } from '../geom/affine';
import type { Box } from '../geom/box';
import type { Point } from '../geom/point';
import { boxCorners } from '../geom/polygon';
import type { Pen } from '../recipe/layout';
import type { Gradient } from '../recipe/gradient';
import type { PaintedMask, PictureMask } from '../recipe/mask';
import type { CompiledPattern, FlatGround } from '../scene/pattern';

/**
 * A page as what is drawn on it, from the bottom up: places, colours, links and units are settled. Drawers only say it in their own
 * way (SVG, the stage, a canvas, the layers of a PNG); none of them looks at a layout.
 */
export type DisplayList = { width: number; height: number; background: Hex | null; shapes: DrawnShape[] };

/** A shape that is drawn. `d` has its origin at (x, y), the upper left corner of the shape's frame; so have all matrices in it. */
export type DrawnShape = {
  id: string;
  name: string;
  x: number;
  y: number;
  d: string;
  /** The turned outline's box on the page. */
  box: Box;
  /** True where the outline is its box: a plain rectangle that is not turned. */
  upright: boolean;
  hidden: boolean;
  /** Bottom first; what is not shown is left out. */
  layers: Layer[];
  /** What limits the whole shape: a soft brush's own rim, and its mask. */
  masks: DrawnMask[];
  /** How the outline is inked: as an area, or as a line along it with a pen. */
  pen: Pen | null;
  /** Its stroke, above the fills. */
  stroke: (Pick<DrawnShape, 'box' | 'layers'> & { pen: Pen }) | null;
};

/** What one fill draws, blended and masked as a whole. `fill` is its id. */
export type Layer = { fill: string; blend: BlendMode; mask: DrawnMask | null; items: readonly DrawItem[] };

/** One thing that is drawn within the outline of its shape. */
export type DrawItem = PathItem | PictureItem | TiledItem | PageItem;

/** The outline itself, inked. */
export type PathItem = { kind: 'path'; ink: Ink; opacity: number };

/** A picture, cut off by the outline. `matrix` takes the picture's pixels to frame px. */
export type PictureItem = {
  kind: 'picture';
  asset: string;
  width: number;
  height: number;
  matrix: Affine;
  opacity: number;
};

/** The motifs of a pattern, repeated and cut off by the outline; its ground is a path of its own below them. */
export type TiledItem = {
  kind: 'tiled';
  pattern: CompiledPattern;
  /** Pattern space → frame px. */
  matrix: Affine;
  colours: Record<string, Hex>;
  /** How the pictures of the pattern are recoloured. */
  look: PictureLook | null;
  opacity: number;
  /** A gradient over the motifs alone. */
  wash: GradientInk | null;
};

/** Another page, cut at its edges, by itself: what blends in it blends within it. `matrix` takes its px to frame px. */
export type PageItem = { kind: 'page'; list: DisplayList; matrix: Affine; opacity: number };

/** A colour or a gradient. */
export type Ink = Hex | GradientInk;

/** `matrix` takes (0,0)–(1,0), or the unit circle, to frame px; beyond its ends it stays as it is there, or begins anew. */
export type GradientInk = {
  kind: Gradient['kind'];
  matrix: Affine;
  spread: 'pad' | 'repeat';
  stops: { at: number; colour: Hex; opacity: number }[];
};

export type DrawnMask = { kind: 'gradient'; gradient: GradientInk } | PaintedMask | PictureMask;

/** A pattern's ground as an ink: a colour, or a gradient with its period, laid by `matrix` (pattern → frame px). */
export function groundInk({ colour, gradient }: FlatGround, matrix: Affine): Ink {
  if (!gradient) return colour;
  const { x, y } = gradient.to;
  return {
    kind: 'linear',
    matrix: multiply(matrix, { a: x, b: y, c: -y, d: x, e: 0, f: 0 }),
    spread: 'repeat',
    stops: gradient.stops.map((stop) => ({ ...stop, opacity: 1 })),
  };
}

/** A shape's stroke as a shape of its own at the same corner, or nothing. */
export const strokeOf = (shape: DrawnShape): DrawnShape | null =>
  shape.stroke && { ...shape, ...shape.stroke, id: `${shape.id}-stroke`, upright: false, stroke: null };

/** All layers of a shape, with those of its stroke. */
export const allLayers = ({ layers, stroke }: DrawnShape): Layer[] =>
  stroke ? [...layers, ...stroke.layers] : layers;

/** All that a shape draws, with its stroke. */
export const itemsOf = (shape: DrawnShape): DrawItem[] => allLayers(shape).flatMap(({ items }) => items);

/** The patterns that a shape draws, with its stroke. */
export const tiledOf = (shape: DrawnShape): TiledItem[] =>
  itemsOf(shape).filter((item) => item.kind === 'tiled');

/** The part of pattern space that shows through a box of the page, as a convex polygon; `null` for a singular fill. */
export function patternRegion(shape: DrawnShape, item: TiledItem, onPage: Box): Point[] | null {
  const inverse = invert(multiply(translation(shape.x, shape.y), item.matrix));
  return inverse ? boxCorners(inverse, onPage) : null;
}

/** A page and all pages that lie in it, each as often as it does, with the px of the page that one of its own is. */
export const listsIn = (list: DisplayList, scale = 1): { list: DisplayList; scale: number }[] => [
  { list, scale },
  ...list.shapes
    .flatMap(itemsOf)
    .flatMap((item) => (item.kind === 'page' ? listsIn(item.list, scale * meanScale(item.matrix)) : [])),
];

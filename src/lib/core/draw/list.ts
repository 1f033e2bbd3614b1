import type { BlendMode } from '../colour/blend';
import type { PictureLook } from '../colour/look';
import type { Hex } from '../colour/parse';
import { invert, meanScale, multiply, translation, type Affine } from '../geom/affine';
import type { Box } from '../geom/box';
import type { Point } from '../geom/point';
import { boxCorners } from '../geom/polygon';
import type { TextForm } from '../recipe/form';
import type { Pen } from '../recipe/layout';
import type { Gradient } from '../recipe/gradient';
import type { PaintedMask, PictureMask } from '../recipe/mask';
import type { CompiledPattern, FlatGround } from '../scene/pattern';

/**
 * A page as what is drawn on it, from the bottom up: places, colours, links and units are settled. Drawers only say it in their own
 * way (SVG, the stage, a canvas, the layers of a PNG); none of them looks at a layout.
 */
export type DisplayList = {
  width: number;
  height: number;
  background: Hex | null;
  shapes: DrawnShape[];
  /** The outermost groups of shapes by their names, and which shapes lie in them. */
  groups?: readonly { name: string; shapes: ReadonlySet<string> }[];
};

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
  /** The words that the outline is set from; `null` for any other. */
  text: DrawnText | null;
  /** Its stroke, above the fills. */
  stroke: (Pick<DrawnShape, 'box' | 'layers'> & { pen: Pen }) | null;
};

/** Words as they are set: the form that they have in its own box, which `matrix` takes to frame px. */
export type DrawnText = { form: TextForm; matrix: Affine };

/** What one fill draws, blended and masked as a whole. `fill` is its id. */
export type Layer = { fill: string; blend: BlendMode; mask: DrawnMask | null; items: readonly DrawItem[] };

/** One thing that is drawn within the outline of its shape. */
export type DrawItem = PathItem | PictureItem | TiledItem | PageItem;

/** The outline itself, inked. */
export type PathItem = { kind: 'path'; ink: Ink; opacity: number };

/** A picture, cut off by the outline. `matrix` takes the picture's pixels to frame px; `look` says how it is recoloured. */
export type PictureItem = {
  kind: 'picture';
  asset: string;
  look: PictureLook | null;
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

/** The colours of an ink, those of a gradient in the order of its stops. */
export const coloursOfInk = (ink: Ink): Hex[] =>
  typeof ink === 'string' ? [ink] : ink.stops.map(({ colour }) => colour);

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
  shape.stroke && {
    ...shape,
    ...shape.stroke,
    id: `${shape.id}-stroke`,
    upright: false,
    text: null,
    stroke: null,
  };

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

/** Whether anything of a page is see-through, blended or masked: then it is drawn in groups. */
export const isSeeThrough = (list: DisplayList): boolean =>
  listsIn(list).some(({ list: { shapes } }) =>
    shapes.some(
      (shape) =>
        shape.masks.length > 0 ||
        allLayers(shape).some(
          ({ blend, mask, items }) => blend !== 'normal' || mask !== null || items.some(isItemSeeThrough),
        ),
    ),
  );

function isItemSeeThrough(item: DrawItem): boolean {
  if (item.opacity < 1 || item.kind === 'page') return true;
  switch (item.kind) {
    case 'path':
      return typeof item.ink !== 'string' && item.ink.stops.some(({ opacity }) => opacity < 1);
    case 'picture':
      // Whether its pixels are is not known here.
      return true;
    case 'tiled':
      return (
        item.wash !== null ||
        item.pattern.scene.sampled ||
        item.pattern.scene.pieces.some(({ opacity, effects }) => opacity < 1 || effects !== null)
      );
  }
}

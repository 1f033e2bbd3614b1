import { about, apply, chain, rotation, scaling, skewX, translation, type Affine } from '../geom/affine';
import type { Box } from '../geom/box';
import { pathBox, transformPath, type Path } from '../geom/path';
import type { Point } from '../geom/point';
import { formPath, type ShapeForm } from '../geom/shapes';
import type { Hex } from '../colour/parse';
import type { LengthUnit } from '../num/length';
import { fillMatrix, isPlaced, type Fill, type FillPlace, type PatternFill, type PlacedFill } from './fill';
import type { Mask } from './mask';

/** A page with shapes. Sizes in px; `measure` is the unit people read; `ppi` is the resolution that export starts with. */
export type Layout = {
  width: number;
  height: number;
  measure: LengthUnit;
  ppi: number;
  background: Hex | null;
  /** The palette colour that the background follows. */
  backgroundLink?: string | null;
  /** In stack order, the last one in front. */
  shapes: Shape[];
};

/**
 * A form in a frame: (x, y) is the upper left corner before the shape's own turn, skew and reflection, which are about
 * the frame's middle.
 */
export type Shape = {
  id: string;
  name: string;
  form: ShapeForm;
  x: number;
  y: number;
  width: number;
  height: number;
  rotation: number;
  skew: number;
  reflectX: boolean;
  reflectY: boolean;
  /** Cannot be chosen or changed on the stage. */
  locked: boolean;
  /** Neither drawn nor exported. */
  hidden: boolean;
  /** In stack order, the last one on top. */
  fills: readonly Fill[];
  mask: Mask | null;
};

type FrameNumbers = Pick<Shape, 'x' | 'y' | 'width' | 'height'>;

/** A shape that is upright, free, shown and without fills, but for what is given. */
export function freshShape(
  given: Pick<Shape, 'id' | 'name' | 'form'> & FrameNumbers & Partial<Shape>,
): Shape {
  return {
    rotation: 0,
    skew: 0,
    reflectX: false,
    reflectY: false,
    locked: false,
    hidden: false,
    fills: [],
    mask: null,
    ...given,
  };
}

/** The shape's middle on the page. */
export const shapeCentre = (shape: FrameNumbers): Point => ({
  x: shape.x + shape.width / 2,
  y: shape.y + shape.height / 2,
});

/** The shape's own turn, skew and reflection, about the origin. */
export function shapeLinear(shape: Pick<Shape, 'rotation' | 'skew' | 'reflectX' | 'reflectY'>): Affine {
  const { reflectX, reflectY } = shape;
  return chain(rotation(shape.rotation), skewX(shape.skew), scaling(reflectX ? -1 : 1, reflectY ? -1 : 1));
}

/** True where the shape lies as it was drawn: not turned, skewed or reflected. */
export const liesUpright = ({ rotation: turn, skew, reflectX, reflectY }: Shape): boolean =>
  turn === 0 && skew === 0 && !reflectX && !reflectY;

/** Frame px as they were drawn → frame px as they lie. */
export const frameMatrix = (shape: Shape): Affine =>
  about({ x: shape.width / 2, y: shape.height / 2 }, shapeLinear(shape));

/** The outline in the axes of the page, with the frame's upper left corner at (0, 0) and the turn applied. */
export function shapeOutline(shape: Shape): Path {
  const path = formPath(shape.form, shape.width, shape.height);
  return liesUpright(shape) ? path : transformPath(frameMatrix(shape), path);
}

/** The upright box of the turned shape on the page. */
export function shapeBox(shape: Shape): Box {
  const box = pathBox(shapeOutline(shape)) ?? { x: 0, y: 0, width: 0, height: 0 };
  return { ...box, x: box.x + shape.x, y: box.y + shape.y };
}

/** The frame's four corners on the page, turned: upper left, upper right, lower right, lower left. */
export function frameCorners(shape: Shape): Point[] {
  const turn = about(shapeCentre(shape), shapeLinear(shape));
  const { x, y, width, height } = shape;
  return [
    apply(turn, { x, y }),
    apply(turn, { x: x + width, y }),
    apply(turn, { x: x + width, y: y + height }),
    apply(turn, { x, y: y + height }),
  ];
}

/** Pattern or picture space → page. */
export function pagePatternMatrix(shape: Pick<Shape, 'x' | 'y'>, fill: FillPlace): Affine {
  const matrix = fillMatrix(fill);
  return fill.anchored === 'page' ? matrix : chain(translation(shape.x, shape.y), matrix);
}

/** The pattern fills of a shape, bottom first. */
export const patternFills = ({ fills }: Pick<Shape, 'fills'>): PatternFill[] =>
  fills.filter((fill) => fill.kind === 'pattern');

/** The fill that is worked on where none is named: the topmost pattern, else the topmost of all. */
export function leadingFill({ fills }: Pick<Shape, 'fills'>): Fill | null {
  const patterns = fills.filter((fill) => fill.kind === 'pattern');
  return patterns[patterns.length - 1] ?? fills[fills.length - 1] ?? null;
}

/** The shape with one of its fills changed; it stays the same object where nothing changes. */
export function withFill(shape: Shape, id: string, change: (fill: Fill) => Fill): Shape {
  let same = true;
  const fills = shape.fills.map((fill) => {
    const next = fill.id === id ? change(fill) : fill;
    same &&= next === fill;
    return next;
  });
  return same ? shape : { ...shape, fills };
}

/** The shape with its patterns and pictures changed: all of them, or the one named. */
export function withPlaced(shape: Shape, change: (fill: PlacedFill) => PlacedFill, only?: string): Shape {
  let same = true;
  const fills = shape.fills.map((fill) => {
    const next = isPlaced(fill) && (only === undefined || only === fill.id) ? change(fill) : fill;
    same &&= next === fill;
    return next;
  });
  return same ? shape : { ...shape, fills };
}

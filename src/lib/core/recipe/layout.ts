import { about, apply, chain, rotation, scaling, skewX, translation, type Affine } from '../geom/affine';
import type { Box } from '../geom/box';
import { pathBox, transformPath, type Path } from '../geom/path';
import type { Point } from '../geom/point';
import type { Hex } from '../colour/parse';
import { mapSame } from '../colour/tint';
import type { LengthUnit } from '../num/length';
import type { Guide } from './recipe';
import { fillMatrix, isPlaced, type Fill, type FillPlace, type PatternFill, type PlacedFill } from './fill';
import { layoutFormPath, type LayoutForm } from './form';
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
  /** What is printed beyond the page's edge and cut off, px; and how far what matters keeps from the edge. */
  bleed: number;
  margin: number;
  guides: readonly Guide[];
  /** In stack order, the last one in front. */
  shapes: Shape[];
  groups: readonly ShapeGroup[];
};

/** Shapes that are kept together; a group may lie in another one. */
export type ShapeGroup = {
  id: string;
  name: string;
  parent: string | null;
  locked: boolean;
  hidden: boolean;
};

/** A line along a shape's outline with fills of its own; `width` in px, in the middle of the outline. */
/** How a line is drawn: its width, its ends and corners, and the lengths of dashes and gaps, in px of the page. */
export type Pen = {
  width: number;
  cap: 'butt' | 'round' | 'square';
  join: 'miter' | 'round' | 'bevel';
  dashes: readonly number[];
};

/** The sharpest corner that is still drawn as a point, as a multiple of the pen's width: SVG's own initial value. */
export const MITER_LIMIT = 4;

export type ShapeStroke = Pen & {
  /** In stack order, the last one on top. */
  fills: readonly Fill[];
};

/**
 * A form in a frame: (x, y) is the upper left corner before the shape's own turn, skew and reflection, which are about
 * the frame's middle.
 */
export type Shape = {
  id: string;
  name: string;
  form: LayoutForm;
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
  stroke: ShapeStroke | null;
  mask: Mask | null;
  /** The group that it lies in. */
  group: string | null;
};

type FrameNumbers = Pick<Shape, 'x' | 'y' | 'width' | 'height'>;

/** A white page without shapes, in px. */
export const freshPage = (width: number, height: number): Layout => ({
  width,
  height,
  measure: 'px',
  ppi: 96,
  background: '#ffffff',
  bleed: 0,
  margin: 0,
  guides: [],
  shapes: [],
  groups: [],
});

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
    stroke: null,
    mask: null,
    group: null,
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
  const path = layoutFormPath(shape.form, shape.width, shape.height);
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

/** The pattern fills of a shape and its stroke, bottom first. */
export const patternFills = (shape: Pick<Shape, 'fills' | 'stroke'>): PatternFill[] =>
  allFills(shape).filter((fill) => fill.kind === 'pattern');

/** The layouts that a shape and its stroke are filled with, by their ids. */
export const layoutsWithin = (shape: Pick<Shape, 'fills' | 'stroke'>): string[] =>
  allFills(shape).flatMap((fill) => (fill.kind === 'layout' ? [fill.layout] : []));

/** The fill that is worked on where none is named: the topmost pattern, else the topmost of all. */
export function leadingFill({ fills }: Pick<Shape, 'fills'>): Fill | null {
  const patterns = fills.filter((fill) => fill.kind === 'pattern');
  return patterns[patterns.length - 1] ?? fills[fills.length - 1] ?? null;
}

/** All fills of a shape, those of its stroke last. */
export const allFills = ({ fills, stroke }: Pick<Shape, 'fills' | 'stroke'>): readonly Fill[] =>
  stroke ? [...fills, ...stroke.fills] : fills;

/** The shape with all its fills changed, those of its stroke too; the same object where every fill stays the same. */
export function mapFills(shape: Shape, change: (fill: Fill) => Fill): Shape {
  const fills = mapSame(shape.fills, change);
  const strokeFills = shape.stroke && mapSame(shape.stroke.fills, change);
  const stroke =
    shape.stroke && strokeFills !== shape.stroke.fills
      ? { ...shape.stroke, fills: strokeFills ?? [] }
      : shape.stroke;
  return fills === shape.fills && stroke === shape.stroke ? shape : { ...shape, fills, stroke };
}

/** The shape with one of its fills changed; it stays the same object where nothing changes. */
export const withFill = (shape: Shape, id: string, change: (fill: Fill) => Fill): Shape =>
  mapFills(shape, (fill) => (fill.id === id ? change(fill) : fill));

/** The shape with its patterns and pictures changed: all of them, or the one named. */
export function withPlaced(shape: Shape, change: (fill: PlacedFill) => PlacedFill, only?: string): Shape {
  return mapFills(shape, (fill) =>
    isPlaced(fill) && (only === undefined || only === fill.id) ? change(fill) : fill,
  );
}

/** The groups that a shape or group lies in, the nearest first. */
export function groupsOf(groups: readonly ShapeGroup[], id: string | null): ShapeGroup[] {
  const found: ShapeGroup[] = [];
  for (let next = id; next !== null && found.length <= groups.length;) {
    const group = groups.find((one) => one.id === next);
    if (!group) break;
    found.push(group);
    next = group.parent;
  }
  return found;
}

/** The ids of the groups that are hidden or locked, by themselves or with one around them. */
export function heldGroups(groups: readonly ShapeGroup[], by: 'hidden' | 'locked'): ReadonlySet<string> {
  return new Set(
    groups.filter(({ id }) => groupsOf(groups, id).some((group) => group[by])).map(({ id }) => id),
  );
}

/** A test whether a shape is hidden or locked, by itself or with its group. */
export function heldShapes(
  { groups }: Pick<Layout, 'groups'>,
  by: 'hidden' | 'locked',
): (shape: Shape) => boolean {
  const held = heldGroups(groups, by);
  return (shape) => shape[by] || (shape.group !== null && held.has(shape.group));
}

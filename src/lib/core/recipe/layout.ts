import { about, apply, rotation } from '../geom/affine';
import type { Box } from '../geom/box';
import { pathBox, transformPath, type Path } from '../geom/path';
import type { Point } from '../geom/point';
import { formPath, type ShapeForm } from '../geom/shapes';
import type { Hex } from '../colour/parse';
import type { LengthUnit } from '../num/length';
import type { Fill } from './fill';

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

/** A form in a frame: (x, y) is the upper left corner before the turn, the turn is about the frame's middle. */
export type Shape = {
  id: string;
  name: string;
  form: ShapeForm;
  x: number;
  y: number;
  width: number;
  height: number;
  rotation: number;
  fill: Fill | null;
};

/** The shape's middle on the page. */
export const shapeCentre = (shape: Shape): Point => ({
  x: shape.x + shape.width / 2,
  y: shape.y + shape.height / 2,
});

/** The outline in the axes of the page, with the frame's upper left corner at (0, 0) and the turn applied. */
export function shapeOutline(shape: Shape): Path {
  const path = formPath(shape.form, shape.width, shape.height);
  if (shape.rotation === 0) return path;
  return transformPath(about({ x: shape.width / 2, y: shape.height / 2 }, rotation(shape.rotation)), path);
}

/** The upright box of the turned shape on the page. */
export function shapeBox(shape: Shape): Box {
  const box = pathBox(shapeOutline(shape)) ?? { x: 0, y: 0, width: 0, height: 0 };
  return { ...box, x: box.x + shape.x, y: box.y + shape.y };
}

/** The frame's four corners on the page, turned: upper left, upper right, lower right, lower left. */
export function frameCorners(shape: Shape): Point[] {
  const turn = about(shapeCentre(shape), rotation(shape.rotation));
  const { x, y, width, height } = shape;
  return [
    apply(turn, { x, y }),
    apply(turn, { x: x + width, y }),
    apply(turn, { x: x + width, y: y + height }),
    apply(turn, { x, y: y + height }),
  ];
}

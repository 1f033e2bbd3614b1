import { apply, chain, invert, rotation, scaling, translation, type Affine } from '../geom/affine';
import { directionDegrees, length, subtract, type Point } from '../geom/point';
import type { Gradient } from './gradient';
import { frameMatrix, liesUpright, type Shape } from './layout';

type Sides = Pick<Shape, 'width' | 'height'>;

const sharePx = ({ width, height }: Sides, share: Point): Point => ({
  x: share.x * width,
  y: share.y * height,
});

/**
 * Gradient space → the shape's frame px (its axes those of the page): (0,0) to (1,0) for a linear gradient, the unit
 * circle for a radial one. The shape's turn, skew and reflection take the gradient along, as they take its outline.
 */
export function gradientMatrix({ from, to }: Gradient, shape: Shape): Affine {
  const start = sharePx(shape, from);
  const along = subtract(sharePx(shape, to), start);
  const laid = chain(
    translation(start.x, start.y),
    rotation(directionDegrees(along)),
    scaling(length(along) || 1e-6),
  );
  return liesUpright(shape) ? laid : chain(frameMatrix(shape), laid);
}

/** Frame px as they were drawn → page px. */
const onPage = (shape: Shape): Affine => chain(translation(shape.x, shape.y), frameMatrix(shape));

/** Where a share of a shape's frame lies on the page, px. */
export const pageOfShare = (shape: Shape, share: Point): Point => apply(onPage(shape), sharePx(shape, share));

/** The share of a shape's frame that a point of the page is; the inverse of `pageOfShare`. */
export function shareOfPage(shape: Shape, point: Point): Point {
  const back = invert(onPage(shape));
  const { x, y } = back ? apply(back, point) : point;
  return { x: x / shape.width, y: y / shape.height };
}

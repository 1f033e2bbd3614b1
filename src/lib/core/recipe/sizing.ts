import { about, applyVector, chain, IDENTITY, invert, type Affine } from '../geom/affine';
import { subtract, type Point } from '../geom/point';
import { LIMITS } from './limits';
import { shapeCentre, shapeLinear, type Shape } from './layout';
import { inShapeAxes, type Frame } from './transform';

/** A place on a frame: −1, 0 or 1 from left to right and from top to bottom; (0, 0) is the middle and no handle. */
export type FrameHandle = { across: -1 | 0 | 1; down: -1 | 0 | 1 };

export const FRAME_HANDLES: readonly FrameHandle[] = [
  { across: -1, down: -1 },
  { across: 0, down: -1 },
  { across: 1, down: -1 },
  { across: 1, down: 0 },
  { across: 1, down: 1 },
  { across: 0, down: 1 },
  { across: -1, down: 1 },
  { across: -1, down: 0 },
];

/** Where a handle lies on the page. */
export function handlePoint(shape: Shape, handle: FrameHandle): Point {
  const centre = shapeCentre(shape);
  const out = applyVector(shapeLinear(shape), {
    x: (handle.across * shape.width) / 2,
    y: (handle.down * shape.height) / 2,
  });
  return { x: centre.x + out.x, y: centre.y + out.y };
}

/**
 * The frame that results when `handle` is pulled to `pointer` (page px): the opposite side stays, or the middle with
 * `centred`; `proportional` keeps the ratio of the sides. A side never gets smaller than the limit and never turns over.
 */
export function frameByHandle(
  shape: Shape,
  handle: FrameHandle,
  pointer: Point,
  options: { proportional: boolean; centred: boolean },
): Frame {
  const centre = shapeCentre(shape);
  const local = inShapeAxes(shape, subtract(pointer, centre));
  const reach = options.centred ? 2 : 1;
  const pulled = (at: number, side: number, direction: number): number => {
    if (direction === 0) return side;
    const from = options.centred ? 0 : (-direction * side) / 2;
    return Math.max(LIMITS.shapeSide.least, (at - from) * direction * reach);
  };
  let width = pulled(local.x, shape.width, handle.across);
  let height = pulled(local.y, shape.height, handle.down);
  if (options.proportional) [width, height] = keepRatio(shape, handle, width, height);
  const shift = options.centred
    ? { x: 0, y: 0 }
    : { x: (handle.across * (width - shape.width)) / 2, y: (handle.down * (height - shape.height)) / 2 };
  const moved = applyVector(shapeLinear(shape), shift);
  return { x: centre.x + moved.x - width / 2, y: centre.y + moved.y - height / 2, width, height };
}

/**
 * The map of the page that skews a shape when the middle of a side is pulled along that side by `by` (page px): the
 * opposite side stays where it is. `null` for a corner.
 */
export function skewByHandle(shape: Shape, { across, down }: FrameHandle, by: Point): Affine | null {
  if ((across === 0) === (down === 0)) return null;
  const along = inShapeAxes(shape, by);
  const skew: Affine =
    down === 0
      ? { ...IDENTITY, b: along.y / (across * shape.width), f: along.y / 2 }
      : { ...IDENTITY, c: along.x / (down * shape.height), e: along.x / 2 };
  const axes = shapeLinear(shape);
  const back = invert(axes);
  return back && about(shapeCentre(shape), chain(axes, skew, back));
}

function keepRatio(shape: Shape, handle: FrameHandle, width: number, height: number): [number, number] {
  const byWidth = width / shape.width;
  const byHeight = height / shape.height;
  const factor = handle.across === 0 ? byHeight : handle.down === 0 ? byWidth : Math.max(byWidth, byHeight);
  return [shape.width * factor, shape.height * factor];
}

import type { Affine } from './affine';
import type { Point } from './point';

/** One picture of a plane: `matrix` takes its pixels (0 … width, 0 … height) to the plane. */
export type PlanePart = { picture: number; matrix: Affine; width: number; height: number };

/** Pictures that meet edge to edge and leave nothing open: the parts of one period, laid again at every i·a + j·b. */
export type PicturePlane = { a: Point; b: Point; parts: readonly PlanePart[] };

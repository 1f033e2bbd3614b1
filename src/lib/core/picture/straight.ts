import { apply } from '../geom/affine';
import type { Point } from '../geom/point';
import { homography, type Corners } from '../geom/corners';
import type { Region } from '../recipe/pictured';
import { regionMatrix } from './patch';

/** Puts a place of a region, px from its upper left corner, onto its picture. */
export type Place = (u: number, v: number, into: Point) => void;

/** Nearer to where a plane is seen from its edge nothing is placed: it would lie beyond all measure. */
const HORIZON = 1e-6;

/** Where a region lies on its picture, which is at hand with `scale` px to one of its own. */
export function placing(region: Region, scale = 1): Place {
  if (!region.corners) {
    const { a, b, c, d, e, f } = regionMatrix(region);
    return (u, v, into) => {
      into.x = scale * (a * u + c * v + e);
      into.y = scale * (b * u + d * v + f);
    };
  }
  const [a, b, c, d, e, f, g, h] = homography(region.corners, region) as [
    ...[number, number, number, number],
    ...[number, number, number, number],
  ];
  return (u, v, into) => {
    const whole = scale / Math.max(HORIZON, g * u + h * v + 1);
    into.x = (a * u + b * v + c) * whole;
    into.y = (d * u + e * v + f) * whole;
  };
}

/** Its corners on the picture, from the upper left one clockwise. */
export function cornersOf(region: Region): Corners {
  if (region.corners) return region.corners;
  const { width, height } = region;
  const matrix = regionMatrix(region);
  const at = (x: number, y: number): Point => apply(matrix, { x, y });
  return [at(0, 0), at(width, 0), at(width, height), at(0, height)];
}

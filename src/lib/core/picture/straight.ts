import { apply } from '../geom/affine';
import type { Point } from '../geom/point';
import { homography, type Corners } from '../geom/corners';
import type { Region } from '../recipe/pictured';
import { regionMatrix } from './patch';

/** Puts so many places of a region, px from its upper left corner, x and y of each in turn, onto its picture. */
export type Place = (places: Float64Array, count: number) => void;

/** Nearer to where a plane is seen from its edge nothing is placed: it would lie beyond all measure. */
const HORIZON = 1e-6;

/** Where a region lies on its picture, which is at hand with `scale` px to one of its own. */
export function placing(region: Region, scale = 1): Place {
  if (!region.corners) {
    const { a, b, c, d, e, f } = regionMatrix(region);
    return (places, count) => {
      for (let at = 0; at < 2 * count; at += 2) {
        const u = places[at]!;
        const v = places[at + 1]!;
        places[at] = scale * (a * u + c * v + e);
        places[at + 1] = scale * (b * u + d * v + f);
      }
    };
  }
  const [a, b, c, d, e, f, g, h] = homography(region.corners, region) as [
    ...[number, number, number, number],
    ...[number, number, number, number],
  ];
  return (places, count) => {
    for (let at = 0; at < 2 * count; at += 2) {
      const u = places[at]!;
      const v = places[at + 1]!;
      const whole = scale / Math.max(HORIZON, g * u + h * v + 1);
      places[at] = (a * u + b * v + c) * whole;
      places[at + 1] = (d * u + e * v + f) * whole;
    }
  };
}

/** One place of a region on its picture. */
export function placed(place: Place, { x, y }: Point): Point {
  const places = Float64Array.of(x, y);
  place(places, 1);
  return { x: places[0]!, y: places[1]! };
}

/** Its corners on the picture, from the upper left one clockwise. */
export function cornersOf(region: Region): Corners {
  if (region.corners) return region.corners;
  const { width, height } = region;
  const matrix = regionMatrix(region);
  const at = (x: number, y: number): Point => apply(matrix, { x, y });
  return [at(0, 0), at(width, 0), at(width, height), at(0, height)];
}

import type { Point } from '../geom/point';
import { offsetsMeeting, regionOfBox } from './meet';
import type { Lattice, Size } from './repeat';

/**
 * The same place on the repeating plane with its point inside the unit at the origin (gap included). A point exactly
 * on the right or lower edge comes out on the left or upper one.
 */
export function intoUnit(lattice: Lattice, pitch: Size, point: Point): Point {
  const unit = regionOfBox({ x: 0, y: 0, width: pitch.width, height: pitch.height });
  const places = offsetsMeeting(lattice, { ...point, width: 0, height: 0 }, unit).map((offset) => ({
    x: point.x + offset.x,
    y: point.y + offset.y,
  }));
  const slack = 1e-6;
  const inside = places.find(
    (place) =>
      place.x >= -slack &&
      place.x < pitch.width - slack &&
      place.y >= -slack &&
      place.y < pitch.height - slack,
  );
  return inside ?? places[0] ?? point;
}

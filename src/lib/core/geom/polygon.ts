import { apply, type Affine } from './affine';
import type { Box } from './box';
import type { Point } from './point';

/** The four corners of a box through a matrix, in order round it. */
export function boxCorners(m: Affine, box: Box): Point[] {
  const { x, y, width, height } = box;
  return [
    apply(m, { x, y }),
    apply(m, { x: x + width, y }),
    apply(m, { x: x + width, y: y + height }),
    apply(m, { x, y: y + height }),
  ];
}

/** True where a convex polygon and an upright box share a point (separating axes; touching counts). */
export function convexMeetsBox(polygon: readonly Point[], box: Box): boolean {
  const axes: Point[] = [
    { x: 1, y: 0 },
    { x: 0, y: 1 },
  ];
  polygon.forEach((from, index) => {
    const to = polygon[(index + 1) % polygon.length] ?? from;
    axes.push({ x: from.y - to.y, y: to.x - from.x });
  });
  return axes.every((axis) => {
    const [low, high] = spread(polygon, axis);
    const reach = (Math.abs(axis.x) * box.width + Math.abs(axis.y) * box.height) / 2;
    const middle = axis.x * (box.x + box.width / 2) + axis.y * (box.y + box.height / 2);
    return low <= middle + reach && middle - reach <= high;
  });
}

function spread(points: readonly Point[], axis: Point): [number, number] {
  let low = Infinity;
  let high = -Infinity;
  for (const point of points) {
    const along = point.x * axis.x + point.y * axis.y;
    low = Math.min(low, along);
    high = Math.max(high, along);
  }
  return [low, high];
}

/** The area of a closed polygon, without sign (shoelace formula). */
export function polygonArea(points: readonly Point[]): number {
  let twice = 0;
  points.forEach((from, index) => {
    const to = points[(index + 1) % points.length] ?? from;
    twice += from.x * to.y - to.x * from.y;
  });
  return Math.abs(twice) / 2;
}

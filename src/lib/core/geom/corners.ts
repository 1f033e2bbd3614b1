import { cross, subtract, type Point } from './point';

/** Four corners on a picture, px: from the upper left one clockwise. */
export type Corners = readonly [Point, Point, Point, Point];

/**
 * The plane that four corners show, as a rectangle of so many px: x = (a·u + b·v + c) / (g·u + h·v + 1), and y with d, e
 * and f (Heckbert 1989, “Fundamentals of texture mapping and image warping”, section 2.2.3).
 */
export function homography(
  [p0, p1, p2, p3]: Corners,
  { width, height }: { width: number; height: number },
): number[] {
  const one = subtract(p1, p2);
  const other = subtract(p3, p2);
  const sum = { x: p0.x - p1.x + p2.x - p3.x, y: p0.y - p1.y + p2.y - p3.y };
  const area = cross(one, other);
  const g = cross(sum, other) / area;
  const h = cross(one, sum) / area;
  return [
    (p1.x - p0.x + g * p1.x) / width,
    (p3.x - p0.x + h * p3.x) / height,
    p0.x,
    (p1.y - p0.y + g * p1.y) / width,
    (p3.y - p0.y + h * p3.y) / height,
    p0.y,
    g / width,
    h / height,
  ];
}

/** Whether corners go round once, without a dent: only then do they show a plane. */
export const showPlane = (corners: Corners): boolean =>
  corners.every((corner, index) => {
    const next = corners[(index + 1) % 4]!;
    return cross(subtract(next, corner), subtract(corners[(index + 2) % 4]!, next)) > 1;
  });

/** How wide and high what four corners show is on the picture: the means of its opposite sides, px. */
export function sidesOf([p0, p1, p2, p3]: Corners): { width: number; height: number } {
  const far = (one: Point, other: Point): number => Math.hypot(one.x - other.x, one.y - other.y);
  return { width: (far(p0, p1) + far(p3, p2)) / 2, height: (far(p0, p3) + far(p1, p2)) / 2 };
}

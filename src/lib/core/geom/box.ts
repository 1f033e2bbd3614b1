import type { Point } from './point';

/** An upright rectangle: (x, y) is its upper left corner, lengths in CSS px. */
export type Box = { x: number; y: number; width: number; height: number };

/** The smallest box around all of `boxes`, or `null` for none. */
export function unionBoxes(boxes: readonly Box[]): Box | null {
  let left = Infinity;
  let top = Infinity;
  let right = -Infinity;
  let bottom = -Infinity;
  for (const box of boxes) {
    left = Math.min(left, box.x);
    top = Math.min(top, box.y);
    right = Math.max(right, box.x + box.width);
    bottom = Math.max(bottom, box.y + box.height);
  }
  return left <= right ? { x: left, y: top, width: right - left, height: bottom - top } : null;
}

/** The smallest box around all of `points`, or `null` for none. */
export const boxOfPoints = (points: readonly Point[]): Box | null =>
  unionBoxes(points.map(({ x, y }) => ({ x, y, width: 0, height: 0 })));

/** `box` made larger by `by` on every side. */
export const grow = (box: Box, by: number): Box => ({
  x: box.x - by,
  y: box.y - by,
  width: box.width + 2 * by,
  height: box.height + 2 * by,
});

/** True where the two boxes share at least a point, edges included. */
export function boxesMeet(a: Box, b: Box): boolean {
  return a.x <= b.x + b.width && b.x <= a.x + a.width && a.y <= b.y + b.height && b.y <= a.y + a.height;
}

/** The part that two boxes share, or `null` where its area is 0. */
export function intersectBoxes(a: Box, b: Box): Box | null {
  const x = Math.max(a.x, b.x);
  const y = Math.max(a.y, b.y);
  const width = Math.min(a.x + a.width, b.x + b.width) - x;
  const height = Math.min(a.y + a.height, b.y + b.height) - y;
  return width > 0 && height > 0 ? { x, y, width, height } : null;
}

export const moveBox = (box: Box, by: Point): Box => ({ ...box, x: box.x + by.x, y: box.y + by.y });

export const boxCentre = (box: Box): Point => ({ x: box.x + box.width / 2, y: box.y + box.height / 2 });

/** The box of two opposite corners in any order. */
export function boxOfCorners(a: Point, b: Point): Box {
  return {
    x: Math.min(a.x, b.x),
    y: Math.min(a.y, b.y),
    width: Math.abs(a.x - b.x),
    height: Math.abs(a.y - b.y),
  };
}

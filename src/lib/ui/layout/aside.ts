import type { Box } from '$lib/core/geom/box';
import type { Point } from '$lib/core/geom/point';
import { clamp } from '$lib/core/num/tolerance';

type Room = { width: number; height: number };

/** What of a stage is free: below the tool bars, off its edges, px. */
const INSET = { top: 52, side: 6, foot: 6 };
/** The shape's own handles lie around it, px. */
const OFF = 32;

/**
 * Where a dial of `radius` px stands aside of a shape that fills `box` of a stage, so that it never lies where one takes
 * hold of the shape: at its right, its left, below or above it, whatever has room first; where the shape leaves no room
 * at all, in the lower left corner of the stage.
 */
export function besides(box: Box, stage: Room, radius: number): Point {
  const [left, right] = [INSET.side + radius, stage.width - INSET.side - radius];
  const [top, foot] = [INSET.top + radius, stage.height - INSET.foot - radius];
  const middle = {
    x: clamp(box.x + box.width / 2, left, right),
    y: clamp(box.y + box.height / 2, top, foot),
  };
  const far = OFF + radius;
  const places: Point[] = [
    { x: box.x + box.width + far, y: middle.y },
    { x: box.x - far, y: middle.y },
    { x: middle.x, y: box.y + box.height + far },
    { x: middle.x, y: box.y - far },
  ];
  const inSight = (place: Point): boolean =>
    place.x >= left && place.x <= right && place.y >= top && place.y <= foot;
  return places.find(inSight) ?? { x: left, y: foot };
}

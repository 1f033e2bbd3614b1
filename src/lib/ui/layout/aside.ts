import type { Box } from '$lib/core/geom/box';
import type { Point } from '$lib/core/geom/point';
import { clamp } from '$lib/core/num/tolerance';

type Room = { width: number; height: number };

/** What of a stage is free: below the tool bars, off its edges, px. */
const INSET = { top: 52, side: 6, foot: 6 };
/** The shape's own handles lie around it, px. */
const OFF = 32;

/** Of the dial's square, what may lie over other shapes without it being worth another side. */
const LITTLE = 0.08;

const shared = (one: Box, other: Box): number =>
  Math.max(0, Math.min(one.x + one.width, other.x + other.width) - Math.max(one.x, other.x)) *
  Math.max(0, Math.min(one.y + one.height, other.y + other.height) - Math.max(one.y, other.y));

/** True where `outer` lies all round `inner`: what a shape lies on is not in its way. */
export const liesRound = (outer: Box, inner: Box): boolean =>
  outer.x <= inner.x &&
  outer.y <= inner.y &&
  outer.x + outer.width >= inner.x + inner.width &&
  outer.y + outer.height >= inner.y + inner.height;

/**
 * Where a dial of `radius` px stands aside of a shape that fills `box` of a stage, so that it never lies where one takes
 * hold of the shape: at its right, its left, below or above it, whatever has room and covers least of the `others`; where
 * the shape leaves no room at all, in the lower left corner of the stage.
 */
export function besides(box: Box, stage: Room, radius: number, others: readonly Box[] = []): Point {
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
  const side = 2 * radius;
  const covered = (place: Point): number => {
    const dial = { x: place.x - radius, y: place.y - radius, width: side, height: side };
    return others.reduce((sum, other) => sum + shared(dial, other), 0);
  };
  const free = places.filter(inSight).map((place) => ({ place, covers: covered(place) }));
  const least = Math.min(...free.map(({ covers }) => covers));
  return free.find(({ covers }) => covers <= least + LITTLE * side * side)?.place ?? { x: left, y: foot };
}

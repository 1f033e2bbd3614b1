import { boxesMeet, moveBox, type Box } from '$lib/core/geom/box';
import type { Point } from '$lib/core/geom/point';
import { snapAlong } from '$lib/core/geom/snap';
import type { LayoutDoc } from './doc';

/** Where a dragged selection lies: the lines that it snapped to, and how far it is from its nearest neighbours. */
export type SnapShown = {
  x: number | null;
  y: number | null;
  distances: { from: Point; to: Point; length: number }[];
};

export const NOTHING_SNAPPED: SnapShown = { x: null, y: null, distances: [] };

type Axis = 'x' | 'y';
const SIDE = { x: 'width', y: 'height' } as const;

/** The edges and middles that things line up with: those of the page, its margin, guides and other shapes. */
function linesOf(doc: LayoutDoc, others: readonly Box[], axis: Axis): number[] {
  const side = doc[SIDE[axis]];
  const guides = doc.guides.filter((guide) => guide.axis === axis).map(({ at }) => at);
  const room = doc.margin > 0 ? [doc.margin, side - doc.margin] : [];
  return [0, side / 2, side, ...room, ...guides, ...others.flatMap((box) => edgesOf(box, axis))];
}

const edgesOf = (box: Box, axis: Axis): number[] => [
  box[axis],
  box[axis] + box[SIDE[axis]] / 2,
  box[axis] + box[SIDE[axis]],
];

/** A move brought onto the nearest lines within `reach` px of the page, with what is to be seen of it. */
export function snappedMove(
  doc: LayoutDoc,
  start: Box,
  others: readonly Box[],
  by: Point,
  reach: number,
): { by: Point; shown: SnapShown } {
  const along = (axis: Axis) =>
    snapAlong(edgesOf(moveBox(start, by), axis), linesOf(doc, others, axis), reach, 0, null);
  const [x, y] = [along('x'), along('y')];
  const moved = { x: by.x + (x?.shift ?? 0), y: by.y + (y?.shift ?? 0) };
  const box = moveBox(start, moved);
  return {
    by: moved,
    shown: { x: x?.line ?? null, y: y?.line ?? null, distances: neighbours(box, others, doc) },
  };
}

/** The distances to the nearest things left, right, above and below, or to the page's edge where there is none. */
function neighbours(box: Box, others: readonly Box[], doc: LayoutDoc): SnapShown['distances'] {
  const away = others.filter((other) => !boxesMeet(box, other));
  return (['x', 'y'] as const).flatMap((axis) => {
    const across = axis === 'x' ? 'y' : 'x';
    const level = away.filter(
      (other) =>
        other[across] < box[across] + box[SIDE[across]] && other[across] + other[SIDE[across]] > box[across],
    );
    const end = (one: Box): number => one[axis] + one[SIDE[axis]];
    const before = Math.max(0, ...level.filter((one) => end(one) <= box[axis]).map(end));
    const after = Math.min(
      doc[SIDE[axis]],
      ...level.filter((one) => one[axis] >= end(box)).map((one) => one[axis]),
    );
    const middle = box[across] + box[SIDE[across]] / 2;
    const point = (at: number): Point => (axis === 'x' ? { x: at, y: middle } : { x: middle, y: at });
    return [
      { from: before, to: box[axis] },
      { from: end(box), to: after },
    ]
      .filter(({ from, to }) => to > from)
      .map(({ from, to }) => ({ from: point(from), to: point(to), length: to - from }));
  });
}

import { unionBoxes, type Box } from '../geom/box';
import type { Point } from '../geom/point';

/** To which edge or middle things line up, or along which way they are spread. */
export type Alignment =
  'left' | 'centre' | 'right' | 'top' | 'middle' | 'bottom' | 'spread-across' | 'spread-down';

type Item = { id: string; box: Box };

/**
 * How far each thing must move: to line up within the box of all of them (or within `frame` where one is given), or
 * so that the spaces between them are equal while the outer two stay. Spreading needs three things to change any.
 */
export function alignBoxes(how: Alignment, items: readonly Item[], frame: Box | null): [string, Point][] {
  const within = frame ?? unionBoxes(items.map((item) => item.box));
  if (!within) return [];
  if (how === 'spread-across') return spread(items, 'x', 'width');
  if (how === 'spread-down') return spread(items, 'y', 'height');
  return items.map(({ id, box }) => [id, shiftTo(how, box, within)]);
}

function shiftTo(how: Alignment, box: Box, within: Box): Point {
  const across = (share: number): Point => ({
    x: within.x - box.x + (within.width - box.width) * share,
    y: 0,
  });
  const down = (share: number): Point => ({
    x: 0,
    y: within.y - box.y + (within.height - box.height) * share,
  });
  switch (how) {
    case 'left':
      return across(0);
    case 'centre':
      return across(0.5);
    case 'right':
      return across(1);
    case 'top':
      return down(0);
    case 'middle':
      return down(0.5);
    default:
      return down(1);
  }
}

function spread(items: readonly Item[], axis: 'x' | 'y', side: 'width' | 'height'): [string, Point][] {
  const row = [...items].sort((one, other) => one.box[axis] - other.box[axis]);
  const first = row[0];
  const last = row[row.length - 1];
  if (!first || !last || row.length < 3) return [];
  const span = last.box[axis] + last.box[side] - first.box[axis];
  const taken = row.reduce((sum, { box }) => sum + box[side], 0);
  const space = (span - taken) / (row.length - 1);
  let at = first.box[axis];
  return row.map(({ id, box }): [string, Point] => {
    const by = at - box[axis];
    at += box[side] + space;
    return [id, axis === 'x' ? { x: by, y: 0 } : { x: 0, y: by }];
  });
}

import type { Box } from '../geom/box';
import type { Point } from '../geom/point';
import { rectangle, type Panel } from './sheet';
import type { Space } from './space';

/** A line in a plane that a sheet follows, by the length along it. */
export type Profile = { length: number; at: (along: number) => Point };

const STEPS = 1200;
/** Parts of what is bent: several to each fold. */
const PARTS = 300;

/**
 * A profile of a line for shares 0 to 1, as large that it is `length` long; its own lengths are found by small straight
 * steps. Beyond its ends it goes straight on.
 */
export function profileOf(line: (share: number) => Point, length: number): Profile {
  const points = Array.from({ length: STEPS + 1 }, (_, at) => line(at / STEPS));
  const lengths = [0];
  for (let at = 1; at <= STEPS; at += 1) {
    const [from, to] = [points[at - 1]!, points[at]!];
    lengths.push(lengths[at - 1]! + Math.hypot(to.x - from.x, to.y - from.y));
  }
  const scale = length / lengths[STEPS]!;
  const at = (along: number): Point => {
    const own = along / scale;
    let [low, high] = [0, STEPS - 1];
    while (low < high) {
      const half = (low + high + 1) >> 1;
      if (lengths[half]! <= own) low = half;
      else high = half - 1;
    }
    const share = (own - lengths[low]!) / (lengths[low + 1]! - lengths[low]!);
    const [from, to] = [points[low]!, points[low + 1]!];
    return {
      x: (from.x + (to.x - from.x) * share) * scale,
      y: (from.y + (to.y - from.y) * share) * scale,
    };
  };
  return { length, at };
}

/** A rectangle that is bent in one direction only, as paper and hanging cloth are: `way` is that along which it bends. */
export function following(
  name: string,
  box: Box,
  way: 'across' | 'down',
  profile: Profile,
  place: (on: Point, other: number) => Space,
): Panel {
  const whole = rectangle(name, box, ({ x, y }) =>
    way === 'across' ? place(profile.at(x), y) : place(profile.at(y), x),
  );
  return { ...whole, cells: strips(box, way === 'across' ? PARTS : 1, way === 'down' ? PARTS : 1) };
}

/** A rectangle in equal parts, row by row. */
export function strips({ x, y, width, height }: Box, columns: number, rows: number): Point[][] {
  const [wide, high] = [width / columns, height / rows];
  return Array.from({ length: columns * rows }, (_, at) => {
    const [column, row] = [at % columns, Math.floor(at / columns)];
    const part = { x: x + column * wide, y: y + row * high, width: wide, height: high };
    return rectangle('', part, null).cells[0]!;
  });
}

import { chain, multiply, translation } from '../geom/affine';
import type { Point } from '../geom/point';
import type { Abutment } from '../lattice/underlay';
import type { PicturePaint } from '../recipe/recipe';
import type { MeetingPicture } from './picture-plane';
import type { UnitScene } from './unit';

/** Lines of one colour and width that lie below edges which meet. */
export type UnderlayLines = { paint: string; wide: number; lines: { from: Point; to: Point }[] };

/** The lines under abutting pieces at the given lattice offsets, in their order; `width` in px of pattern space. */
export function underlayLines(
  { abutments }: UnitScene,
  width: number,
  offsets: readonly Point[],
): UnderlayLines[] {
  const groups = new Map<string, UnderlayLines>();
  for (const abutment of abutments) {
    const { paint, alike, room } = abutment;
    const wide = Math.min(width, 2 * room);
    if (wide <= 0) continue;
    const { from, to } = runOn(abutment, width);
    const key = `${paint} ${alike} ${wide.toFixed(4)}`;
    const group = groups.get(key) ?? { paint, wide, lines: [] };
    groups.set(key, group);
    for (const { x, y } of offsets)
      group.lines.push({ from: { x: from.x + x, y: from.y + y }, to: { x: to.x + x, y: to.y + y } });
  }
  return [...groups.values()];
}

/** An abutment made longer by as much as `by` where it may run on, so that no gap is left at a joint. */
function runOn({ from, to, runFrom, runTo }: Abutment, by: number): { from: Point; to: Point } {
  const size = Math.hypot(to.x - from.x, to.y - from.y);
  const along = { x: (to.x - from.x) / size, y: (to.y - from.y) / size };
  const start = -Math.min(by, runFrom);
  const end = Math.min(by, runTo);
  return {
    from: { x: from.x + along.x * start, y: from.y + along.y * start },
    to: { x: to.x + along.x * end, y: to.y + along.y * end },
  };
}

/**
 * Pictures that meet edge to edge, each drawn first a little larger on the sides where it meets another one: what the
 * anti-aliasing of an edge lets through is the picture itself.
 */
export function underlayPictures(
  { meeting }: UnitScene,
  width: number,
  offsets: readonly Point[],
): PicturePaint[] {
  // Under one that can be seen through it would show.
  const solid = meeting.filter(({ picture }) => !picture.clear);
  return offsets.flatMap((offset) => solid.map((one) => grownPicture(one, offset, 0.75 * width)));
}

function grownPicture({ picture, sides }: MeetingPicture, offset: Point, by: number): PicturePaint {
  const { matrix, width, height } = picture;
  const across = by / Math.hypot(matrix.a, matrix.b);
  const down = by / Math.hypot(matrix.c, matrix.d);
  const [left, right] = [sides.left ? across : 0, sides.right ? across : 0];
  const [top, bottom] = [sides.top ? down : 0, sides.bottom ? down : 0];
  const grown = multiply(translation(-left, -top), {
    a: (width + left + right) / width,
    b: 0,
    c: 0,
    d: (height + top + bottom) / height,
    e: 0,
    f: 0,
  });
  return { ...picture, matrix: chain(translation(offset.x, offset.y), matrix, grown) };
}

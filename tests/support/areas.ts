import { flatten, parsePath } from '../../src/lib/core/geom/path';

/** The area of a path whose rings do not lie in each other, px² (the shoelace formula). */
export function pathArea(d: string): number {
  const read = parsePath(d);
  if (!read.ok) throw new Error(read.message);
  return flatten(read.path, 24).reduce((sum, { points }) => {
    const twice = points.reduce((crossed, from, index) => {
      const to = points[(index + 1) % points.length]!;
      return crossed + from.x * to.y - to.x * from.y;
    }, 0);
    return sum + Math.abs(twice) / 2;
  }, 0);
}

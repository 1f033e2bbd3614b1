import { patternFills, type Layout } from '../recipe/layout';

/** A pattern that is on a layout, the fills that show it, and how much of the page their shapes cover, px². */
export type PatternOn = { pattern: string; fills: string[]; area: number };

/** The patterns on a layout, the one that covers most first. */
export function patternsOn({ shapes }: Pick<Layout, 'shapes'>): PatternOn[] {
  const found = new Map<string, PatternOn>();
  for (const shape of shapes)
    for (const { pattern, id } of patternFills(shape)) {
      const one = found.get(pattern) ?? { pattern, fills: [], area: 0 };
      found.set(pattern, {
        ...one,
        fills: [...one.fills, id],
        area: one.area + shape.width * shape.height,
      });
    }
  return [...found.values()].sort((one, other) => other.area - one.area);
}

import { translation } from './affine';
import { pathBox, transformPath, type Path } from './path';
import type { Box } from './box';

/** The distance of two baselines, as a share of the size. */
export const LEADING = 1.2;

export type LineAlign = 'start' | 'middle' | 'end';
export const LINE_SHARE: Record<LineAlign, number> = { start: 0, middle: 0.5, end: 1 };

/** A line of text on a baseline of its own from (0, 0): its outlines, and how far it advances. */
export type SetLine = { path: Path; width: number };

/**
 * Lines below each other as one outline in a box that begins at (0, 0), and where each of their baselines begins in it; `null` where
 * nothing is drawn.
 */
export function setLines(
  lines: readonly SetLine[],
  { size, align }: { size: number; align: LineAlign },
): { path: Path; box: Box; widest: number; starts: { x: number; y: number }[] } | null {
  const widest = Math.max(...lines.map(({ width }) => width));
  const places = lines.map(({ width }, index) => ({
    x: (widest - width) * LINE_SHARE[align],
    y: index * size * LEADING,
  }));
  const path = lines.flatMap((line, index) =>
    transformPath(translation(places[index]!.x, places[index]!.y), line.path),
  );
  const box = pathBox(path);
  if (!box || box.width === 0 || box.height === 0) return null;
  return {
    ...{ box, widest },
    path: transformPath(translation(-box.x, -box.y), path),
    starts: places.map(({ x, y }) => ({ x: x - box.x, y: y - box.y })),
  };
}

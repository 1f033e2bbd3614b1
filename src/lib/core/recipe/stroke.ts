import { paintedArea, type BrushStroke } from '../geom/brush-stroke';
import type { Problem } from './problem';

/** How much may be painted on one picture: pixels are counted before the work is done. */
export const STROKE_LIMITS = {
  strokes: 200,
  /** Points of one stroke. */
  points: 1000,
  size: { least: 0.5, most: 4000 },
  /** Pixels that all strokes together go over. */
  painted: 1e9,
} as const;

/** Adds what is wrong with the strokes on one picture. */
export function checkStrokes(strokes: readonly BrushStroke[], path: string, problems: Problem[]): void {
  const { strokes: most, points, painted } = STROKE_LIMITS;
  const add = (message: string): unknown => problems.push({ code: 'too_many', path, message });
  if (strokes.length > most)
    add(`These are ${strokes.length} strokes; at most ${most} are kept. Take some back.`);
  else if (strokes.some((stroke) => stroke.points.length > 2 * points))
    add(`A stroke is told by at most ${points} points; begin a new one.`);
  else if (strokes.reduce((sum, stroke) => sum + paintedArea(stroke), 0) > painted)
    add('More is painted than can be worked through; take some strokes back, or use a smaller brush.');
}

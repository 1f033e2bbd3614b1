import { isLengthUnit, toPx } from '../num/length';

/** What lengths are measured by where an element stands: its font's size, and the viewport that shares are taken of. */
export type Measures = { fontSize: number; viewport: { width: number; height: number } };

/** Which side of the viewport a percentage is taken of; `both` is its diagonal over √2 (SVG 2, section 8.9). */
export type Side = 'x' | 'y' | 'both';

export const PLAIN_MEASURES: Measures = { fontSize: 16, viewport: { width: 100, height: 100 } };

/** Numbers are never this long; text that is, is none. */
const LONGEST = 60;

/** A CSS length in px; unknown units and what is no length count as `otherwise`, a bare number as px. */
export function lengthOf(
  text: string | undefined,
  measures: Measures = PLAIN_MEASURES,
  side: Side = 'both',
  otherwise = 0,
): number {
  if (text === undefined || text.length > LONGEST) return otherwise;
  const match = /^\s*([-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?)\s*([a-z%]*)\s*$/i.exec(text);
  const value = Number(match?.[1]);
  if (!match || !Number.isFinite(value)) return otherwise;
  const unit = match[2]?.toLowerCase() ?? '';
  switch (unit) {
    case '':
      return value;
    case 'cm':
      return toPx(value * 10, 'mm');
    case 'q':
      return toPx(value / 4, 'mm');
    case 'pc':
      return toPx(value * 12, 'pt');
    case 'em':
      return value * measures.fontSize;
    case 'ex':
    case 'ch':
      return (value * measures.fontSize) / 2;
    case 'rem':
      return value * 16;
    case '%':
      return (value / 100) * sideOf(measures, side);
    default:
      return isLengthUnit(unit) ? toPx(value, unit) : otherwise;
  }
}

function sideOf({ viewport: { width, height } }: Measures, side: Side): number {
  if (side === 'x') return width;
  return side === 'y' ? height : Math.hypot(width, height) / Math.SQRT2;
}

/** A number or a percentage as a share, kept within 0 and 1 where `clamped`. */
export function shareOf(text: string | undefined, otherwise: number, clamped = true): number {
  if (text === undefined || text.length > LONGEST) return otherwise;
  const value = Number.parseFloat(text) / (text.trim().endsWith('%') ? 100 : 1);
  if (!Number.isFinite(value)) return otherwise;
  return clamped ? Math.min(1, Math.max(0, value)) : value;
}

/** A drawing command of a font's outline, as font readers give it. */
export type GlyphCommand = {
  type: 'M' | 'L' | 'C' | 'Q' | 'Z';
  x?: number;
  y?: number;
  x1?: number;
  y1?: number;
  x2?: number;
  y2?: number;
};

/**
 * Outlines of a font as path data with six decimals. The font reader's own printing is not used: it writes NaN for
 * numbers as small as 1e-7.
 */
export function glyphPathData(commands: readonly GlyphCommand[]): string {
  const say = (...numbers: (number | undefined)[]): string =>
    numbers.map((value) => String(Number((value ?? 0).toFixed(6)))).join(' ');
  return commands
    .map(({ type, x, y, x1, y1, x2, y2 }) => {
      if (type === 'Z') return 'Z';
      if (type === 'Q') return `Q${say(x1, y1, x, y)}`;
      return type === 'C' ? `C${say(x1, y1, x2, y2, x, y)}` : `${type}${say(x, y)}`;
    })
    .join('');
}

/**
 * Lengths are CSS px inside Isle. Units as CSS Values and Units defines them: 1 in = 96 px = 72 pt = 25.4 mm.
 * Each ratio is kept as whole numbers so that 25.4 mm is 96 px exactly.
 */
export const LENGTH_UNITS = ['px', 'mm', 'in', 'pt'] as const;
export type LengthUnit = (typeof LENGTH_UNITS)[number];

const PX_RATIO: Record<LengthUnit, readonly [number, number]> = {
  px: [1, 1],
  mm: [960, 254],
  in: [96, 1],
  pt: [96, 72],
};

/** px per inch by definition of the CSS px. */
export const CSS_PPI = 96;

/** True for 'px', 'mm', 'in' and 'pt'. */
export function isLengthUnit(value: unknown): value is LengthUnit {
  return (LENGTH_UNITS as readonly unknown[]).includes(value);
}

/** `value` in `unit` → CSS px. Inverse of {@link fromPx}. */
export function toPx(value: number, unit: LengthUnit): number {
  const [numerator, denominator] = PX_RATIO[unit];
  return (value * numerator) / denominator;
}

/** CSS px → `unit`. Inverse of {@link toPx}. */
export function fromPx(px: number, unit: LengthUnit): number {
  const [numerator, denominator] = PX_RATIO[unit];
  return (px * denominator) / numerator;
}

/** How many device pixels a length of `px` CSS px has at `ppi` pixels per inch; not rounded. */
export function devicePixels(px: number, ppi: number): number {
  return (px * ppi) / CSS_PPI;
}

/** A page of `width` × `height` CSS px in whole device pixels, at least one a side. */
export function pixelSize(
  { width, height }: { width: number; height: number },
  ppi: number,
): { width: number; height: number } {
  const side = (px: number): number => Math.max(1, Math.round(devicePixels(px, ppi)));
  return { width: side(width), height: side(height) };
}

/** The resolution in ppi of `pixels` picture pixels laid over `px` CSS px. */
export function effectivePpi(pixels: number, px: number): number {
  return (pixels * CSS_PPI) / px;
}

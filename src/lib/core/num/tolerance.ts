/** Two lengths (px) or angles (degrees) closer than this are the same; a millionth of a CSS px is far below print. */
export const EPSILON = 1e-6;

/** True where `a` and `b` differ by no more than `tolerance`, scaled up for large values. */
export function nearly(a: number, b: number, tolerance = EPSILON): boolean {
  return Math.abs(a - b) <= tolerance * Math.max(1, Math.abs(a), Math.abs(b));
}

/** `value` held between `low` and `high`. */
export function clamp(value: number, low: number, high: number): number {
  return Math.min(high, Math.max(low, value));
}

/** The remainder of `value` by `modulus`, in [0, modulus); for `modulus` ≤ 0 the value itself. */
export function modulo(value: number, modulus: number): number {
  if (!(modulus > 0)) return value;
  const rest = value % modulus;
  return rest < 0 ? rest + modulus : rest;
}

/** An angle in degrees brought into (−180, 180]. */
export function wrapDegrees(degrees: number): number {
  const turned = modulo(degrees + 180, 360) - 180;
  return turned === -180 ? 180 : turned;
}

/** `value` rounded to `digits` decimals; only for showing and printing. −0 becomes 0. */
export function roundTo(value: number, digits: number): number {
  const factor = 10 ** digits;
  return Math.round(value * factor) / factor + 0;
}

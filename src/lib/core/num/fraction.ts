import { nearly } from './tolerance';

export type Fraction = { numerator: number; denominator: number };

/**
 * The fraction with the smallest denominator up to `maxDenominator` that equals `value` (to 1e-9), or `null`
 * where there is none: a step of 0.333333333 is 1/3, a step of 0.3719 is no fraction with a small denominator.
 */
export function asFraction(value: number, maxDenominator: number): Fraction | null {
  if (!Number.isFinite(value)) return null;
  for (let denominator = 1; denominator <= maxDenominator; denominator += 1) {
    const numerator = Math.round(value * denominator);
    if (nearly(numerator / denominator, value, 1e-9)) return { numerator, denominator };
  }
  return null;
}

/** A number as the trade writes a step or a repeat count: "1/2", "8 1/3", or with decimals where no thirds, quarters … fit. */
export function fractionText(value: number, maxDenominator = 8): string {
  const found = asFraction(value, maxDenominator);
  if (!found) return String(Math.round(value * 10_000) / 10_000);
  const { numerator, denominator } = found;
  if (denominator === 1) return String(numerator);
  const whole = Math.trunc(numerator / denominator);
  const rest = Math.abs(numerator - whole * denominator);
  if (whole === 0) return `${numerator}/${denominator}`;
  return `${whole} ${rest}/${denominator}`;
}

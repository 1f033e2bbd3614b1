import { fromPx, type LengthUnit } from '../num/length';
import { sayNumber, type Problem } from './problem';

export type Range = { least: number; most: number };

export const SHARE: Range = { least: 0, most: 1 };

/** Adds a problem where `value` is not a finite number within the range; `label` opens the sentence. */
export function range(value: number, limits: Range, path: string, label: string, problems: Problem[]): void {
  if (Number.isFinite(value) && value >= limits.least && value <= limits.most) return;
  problems.push({
    code: 'out_of_range',
    path,
    message: `${label} must be from ${sayNumber(limits.least)} to ${sayNumber(limits.most)}; ${sayNumber(value)} was given.`,
  });
}

/** Adds a problem where a length in px is not within the range, said in `measure`. */
export function lengthRange(
  value: number,
  limits: Range,
  measure: LengthUnit,
  path: string,
  label: string,
  problems: Problem[],
): void {
  if (Number.isFinite(value) && value >= limits.least && value <= limits.most) return;
  const say = (px: number): string => `${sayNumber(fromPx(px, measure))} ${measure}`;
  const bound = value > limits.most ? `at most ${say(limits.most)}` : `at least ${say(limits.least)}`;
  problems.push({
    code: 'out_of_range',
    path,
    message: `${label} must be ${bound}; ${say(value)} was given.`,
  });
}

/** Adds a problem where a slot is none of the recipe’s. */
export function needSlot(
  slot: string,
  slots: Set<string>,
  path: string,
  name: string,
  problems: Problem[],
): void {
  if (!slots.has(slot))
    problems.push({ code: 'unknown_slot', path, message: `“${name}” refers to a colour that is not there.` });
}

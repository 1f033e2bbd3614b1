import type { LengthUnit } from '../num/length';
import { lengthRange, range } from './check-parts';
import { LIMITS } from './limits';
import { MEASURED, measuredSlots, type Measured } from './measured';
import type { Problem } from './problem';
import type { MeasuredRecipe } from './recipe';

/** Adds what is wrong with the numbers, choices, colours and bands of a measured pattern. */
export function checkMeasured(
  { measured, measure }: MeasuredRecipe,
  slots: Set<string>,
  problems: Problem[],
): void {
  const spec = MEASURED[measured.form];
  for (const { key, label, kind, least, most, when } of spec.numbers) {
    if (when && measured.choices[when.key] !== when.is) continue;
    const value = measured.numbers[key] ?? Number.NaN;
    const path = `measured.numbers.${key}`;
    if (kind === 'length') lengthRange(value, { least, most }, measure, path, label, problems);
    else range(value, { least, most }, path, label, problems);
  }
  for (const { key, label, options } of spec.choices) {
    if (!options.some(([id]) => id === measured.choices[key]))
      problems.push({
        code: 'bad_choice',
        path: `measured.choices.${key}`,
        message: `“${label}” must be one of ${options.map(([, text]) => text).join(', ')}.`,
      });
  }
  if (measuredSlots(measured).some((slot) => !slots.has(slot)))
    problems.push({
      code: 'unknown_slot',
      path: 'measured.inks',
      message: 'The pattern refers to a colour that is not there.',
    });
  if (spec.hasBands) checkBands(measured, measure, problems);
  checkRoom(measured, problems);
}

function checkBands(measured: Measured, measure: LengthUnit, problems: Problem[]): void {
  if (measured.bands.length < 1 || measured.bands.length > LIMITS.bands)
    problems.push({
      code: 'bad_count',
      path: 'measured.bands',
      message: `A banded pattern has from 1 to ${LIMITS.bands} bands; ${measured.bands.length} were given.`,
    });
  measured.bands.forEach((band, index) =>
    lengthRange(
      band.width,
      { least: 0.01, most: LIMITS.unitSide.most },
      measure,
      `measured.bands.${index}.width`,
      `The width of band ${index + 1}`,
      problems,
    ),
  );
}

/** Numbers that contradict each other: lines as wide as their pitch leave nothing between them. */
function checkRoom({ form, numbers: n }: Measured, problems: Problem[]): void {
  const tooWide = (width: string, pitch: string, what: string): void => {
    if ((n[width] ?? 0) <= (n[pitch] ?? Infinity) + 1e-9) return;
    problems.push({
      code: 'no_room',
      path: `measured.numbers.${width}`,
      message: `${what} is larger than the distance it repeats at, so the pattern would be solid; make it smaller or the distance larger.`,
    });
  };
  if (form === 'stripes' || form === 'hatch') tooWide('width', 'pitch', 'The line width');
  if (form === 'grid') {
    tooWide('width', 'across', 'The line width');
    tooWide('width', 'down', 'The line width');
  }
  if (form === 'rings' && (n.width ?? 0) * (n.count ?? 1) * 2 > (n.diameter ?? 0) + 1e-9)
    problems.push({
      code: 'no_room',
      path: 'measured.numbers.width',
      message:
        'The rings do not fit into their diameter; make the line thinner, the count lower or the diameter larger.',
    });
}

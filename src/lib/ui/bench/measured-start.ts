import { MEASURED, startMeasured, type Measured, type MeasuredForm } from '$lib/core/recipe/measured';
import { RECIPE_VERSION, type MeasuredRecipe } from '$lib/core/recipe/recipe';
import type { LengthUnit } from '$lib/core/num/length';
import { isLengthUnit } from '$lib/core/num/length';

/** The numbers that were last used for each kind, and the kind that was used last, on this computer. */
type Memory = { last: MeasuredForm; measure: LengthUnit; numbers: Partial<Record<MeasuredForm, Remembered>> };
type Remembered = Pick<Measured, 'numbers' | 'choices'>;

const KEY = 'isle.measured';

function recall(): Memory {
  const start: Memory = { last: 'stripes', measure: 'pt', numbers: {} };
  try {
    const held = JSON.parse(localStorage.getItem(KEY) ?? 'null') as Partial<Memory> | null;
    if (!held || typeof held !== 'object') return start;
    const last = held.last && held.last in MEASURED ? held.last : start.last;
    const measure = isLengthUnit(String(held.measure)) ? (held.measure as LengthUnit) : start.measure;
    return { last, measure, numbers: held.numbers ?? {} };
  } catch {
    return start;
  }
}

/** Keeps a recipe's numbers as the ones to start with next time. */
export function rememberMeasured({ measured, measure }: MeasuredRecipe): void {
  const { form, numbers, choices } = measured;
  const memory = recall();
  const next: Memory = { last: form, measure, numbers: { ...memory.numbers, [form]: { numbers, choices } } };
  localStorage.setItem(KEY, JSON.stringify(next));
}

/** A measured recipe to begin with: the kind and the numbers used last, on a clear ground in one dark colour. */
export function lastMeasured(newId: () => string): MeasuredRecipe {
  const { last, measure } = recall();
  const slots = [
    { id: newId(), name: 'Ink', colour: '#14211f' },
    { id: newId(), name: 'Second', colour: '#2f8fab' },
  ];
  return startRecipe(last, {
    kind: 'measured',
    version: RECIPE_VERSION,
    measure,
    measured: startMeasured(last, []),
    ground: { kind: 'clear' },
    slots,
  });
}

/** `from` turned into another kind, with the numbers last used for it; the colours stay. */
export function startRecipe(form: MeasuredForm, from: MeasuredRecipe): MeasuredRecipe {
  const start = startMeasured(
    form,
    from.slots.map((slot) => slot.id),
  );
  const held = recall().numbers[form];
  const known = (values: Record<string, unknown> | undefined, type: string): Record<string, never> =>
    Object.fromEntries(Object.entries(values ?? {}).filter(([, value]) => typeof value === type)) as Record<
      string,
      never
    >;
  return {
    ...from,
    measured: {
      ...start,
      numbers: { ...start.numbers, ...known(held?.numbers, 'number') },
      choices: { ...start.choices, ...known(held?.choices, 'string') },
    },
  };
}

/** A recipe with another choice; a second set of lines starts as the first one is. */
export function withChoice(recipe: MeasuredRecipe, key: string, value: string): MeasuredRecipe {
  const { measured } = recipe;
  const next = { ...measured, choices: { ...measured.choices, [key]: value } };
  if (key !== 'second' || value !== 'yes' || measured.choices.second === 'yes')
    return { ...recipe, measured: next };
  const { width = 0, pitch = 0 } = measured.numbers;
  const { line } = measured.inks;
  return {
    ...recipe,
    measured: {
      ...next,
      numbers: { ...measured.numbers, width2: width, pitch2: pitch },
      inks: line === undefined ? measured.inks : { ...measured.inks, second: line },
    },
  };
}

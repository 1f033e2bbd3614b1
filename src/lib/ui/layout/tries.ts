import { readQuantity } from '$lib/core/num/quantity';
import type { Fill } from '$lib/core/recipe/fill';
import { isPlaced } from '$lib/core/recipe/fill';
import { LIMITS } from '$lib/core/recipe/limits';
import type { TryAxis, TryProperty } from '$lib/core/recipe/strike-off';
import { roundTo } from '$lib/core/num/tolerance';

export const TRY_NAMES: Record<TryProperty, string> = {
  scale: 'Scale',
  rotation: 'Rotation',
  opacity: 'Opacity',
  colourway: 'Colourway',
  pattern: 'Pattern',
  ground: 'Ground',
};

/** What a fill has that can be tried. */
export function triesOf(fill: Fill, colourways: number): TryProperty[] {
  const all: TryProperty[] = ['scale', 'rotation', 'opacity', 'colourway', 'pattern', 'ground'];
  return all.filter((property) => {
    if (property === 'opacity') return true;
    if (property === 'scale' || property === 'rotation') return isPlaced(fill);
    if (property === 'colourway') return fill.kind === 'pattern' && colourways > 0;
    return fill.kind === 'pattern';
  });
}

/** Values to begin with: around what the fill has now. */
export function freshAxis(property: TryProperty, fill: Fill, colourways: readonly string[]): TryAxis {
  const scale = isPlaced(fill) ? fill.scaleX : 1;
  switch (property) {
    case 'scale':
      return { property, values: [0.5, 0.75, 1, 1.5, 2].map((factor) => roundTo(scale * factor, 4)) };
    case 'rotation':
      return { property, values: [0, 15, 30, 45, 90] };
    case 'opacity':
      return { property, values: [0.2, 0.4, 0.6, 0.8, 1] };
    case 'colourway':
      return { property, values: [null, ...colourways].slice(0, LIMITS.tries) };
    case 'pattern':
      return { property, values: fill.kind === 'pattern' ? [fill.pattern] : [] };
    case 'ground':
      return { property, values: ['own', 'none'] };
  }
}

type NumberAxis = Extract<TryAxis, { property: 'scale' | 'rotation' | 'opacity' }>;

export const isNumbers = (axis: TryAxis): axis is NumberAxis =>
  axis.property === 'scale' || axis.property === 'rotation' || axis.property === 'opacity';

const RANGES = { scale: LIMITS.scale, rotation: LIMITS.angle, opacity: { least: 0, most: 1 } };

/** The numbers of an axis as they are typed: "25, 50, 100". */
export const typedNumbers = ({ property, values }: NumberAxis): string =>
  values
    .map((value) => String(Number((property === 'rotation' ? value : value * 100).toFixed(4))))
    .join(', ');

/** Reads typed numbers, sums included; a sentence where one cannot be read or leaves its limits. */
export function readNumbers(
  property: NumberAxis['property'],
  text: string,
): { ok: true; axis: NumberAxis } | { ok: false; message: string } {
  const suffix = property === 'rotation' ? ('°' as const) : ('%' as const);
  const { least, most } = RANGES[property];
  const values: number[] = [];
  for (const part of text.split(/[,;]+/).filter((one) => one.trim() !== '')) {
    const read = readQuantity(part, { suffix });
    if (!read.ok) return read;
    const value = suffix === '%' ? read.value / 100 : read.value;
    if (value < least || value > most)
      return {
        ok: false,
        message: `${TRY_NAMES[property]} must be from ${least * (suffix === '%' ? 100 : 1)} to ${most * (suffix === '%' ? 100 : 1)}; “${part.trim()}” was given.`,
      };
    values.push(value);
  }
  if (values.length === 0) return { ok: false, message: 'Write at least one number; commas part them.' };
  if (values.length > LIMITS.tries)
    return {
      ok: false,
      message: `At most ${LIMITS.tries} values stand side by side; ${values.length} were given.`,
    };
  return { ok: true, axis: { property, values } };
}

import { urlOf } from '../state/api';
import type { Instead, PatternFacts, PatternSummary } from '$lib/contract/data';
import { fractionText } from '$lib/core/num/fraction';
import { fromPx, type LengthUnit } from '$lib/core/num/length';
import { shortSymbol } from '$lib/core/lattice/groups';
import type { Repeat } from '$lib/core/lattice/repeat';

/** A length in a unit, without needless decimals: "56", "12.5". */
export function sayLength(px: number, measure: LengthUnit, digits = measure === 'in' ? 2 : 1): string {
  return String(Number(fromPx(px, measure).toFixed(digits)));
}

/** "56 × 64 mm". */
export function saySize(size: { width: number; height: number }, measure: LengthUnit): string {
  return `${sayLength(size.width, measure)} × ${sayLength(size.height, measure)} ${measure}`;
}

/** The unit with its gaps counted in, as it repeats: "56 × 64 mm". */
export const sayUnit = (facts: PatternFacts): string => saySize(facts.unit, facts.measure);

/** "Brick, 1/2". */
export function sayRepeat(repeat: Repeat): string {
  if (repeat.kind === 'straight') return 'Straight';
  if (repeat.kind === 'mirror') return 'Mirror';
  if (repeat.kind === 'group') return `Plane group ${shortSymbol(repeat.group)}`;
  const name = repeat.kind === 'brick' ? 'Brick' : 'Half-drop';
  return `${name}, ${fractionText(repeat.step)}${repeat.run === 'alternating' && repeat.step !== 0.5 ? ', back and forth' : ''}`;
}

/** "14 uses, 3 projects" or "Not used yet". */
export function sayUses(pattern: Pick<PatternSummary, 'uses' | 'projects'>): string {
  if (pattern.uses === 0) return 'Not used yet';
  const uses = pattern.uses === 1 ? '1 use' : `${pattern.uses} uses`;
  return `${uses}, ${pattern.projects === 1 ? '1 project' : `${pattern.projects} projects`}`;
}

/** A factor as percent: "62 %". */
export const sayPercent = (factor: number): string => `${Number((factor * 100).toFixed(1))} %`;

/**
 * The address of a pattern's sample strip, in one of its colourways where asked. Another look is another address. Long
 * lists ask for pixels, which scroll past faster than shapes that are drawn anew.
 */
export function swatchUrl(
  pattern: Pick<PatternSummary, 'id' | 'newest'> & { facts?: PatternFacts | null },
  width: number,
  height: number,
  scale: number,
  colourway?: { id: string; colours: Readonly<Record<string, { colour: string }>> },
  as: 'svg' | 'png' = 'svg',
): string {
  const number = pattern.newest > 0 ? String(pattern.newest) : 'draft';
  const followed = (pattern.facts?.slots ?? []).filter((slot) => slot.link);
  const tints = [...followed, ...Object.values(colourway?.colours ?? {})];
  const look = tints.map(({ colour }) => colour.slice(1)).join('.');
  const pixels = Math.min(4, Math.ceil(globalThis.devicePixelRatio ?? 1));
  return urlOf('GET /patterns/{id}/revisions/{number}/swatch', {
    ...{ id: pattern.id, number },
    query: {
      ...{ width, height, scale },
      ...(colourway ? { colourway: colourway.id } : {}),
      ...(look === '' ? {} : { look }),
      ...(as === 'png' ? { as, pixels } : {}),
    },
  });
}

export const KIND_NAMES = { drawn: 'Drawn', measured: 'Measured', picture: 'Picture' } as const;

export const REPEAT_NAMES = {
  straight: 'Straight',
  brick: 'Brick',
  'half-drop': 'Half-drop',
  mirror: 'Mirror',
  group: 'Plane group',
} as const;

/** "3 Nov 2026". */
export const sayDate = (at: number): string =>
  new Date(at).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' });

/** "1 pattern", "12 patterns". */
export const sayPatterns = (count: number): string =>
  count === 1 ? '1 pattern' : `${count.toLocaleString('en-GB')} patterns`;

/** What a word that no pattern has was taken for: "No pattern has “petla”; shown is “petal”." */
export function sayInstead({ typed, words }: Instead): string {
  const quoted = words.slice(0, 3).map((word) => `“${word}”`);
  return `No pattern has “${typed}”; shown is ${quoted.join(', ')}${words.length > 3 ? ' …' : '.'}`;
}

import { contrastRatio } from './contrast';
import type { Hex } from './parse';
import { shifted, type ColourShift } from './scheme';
import type { ColourSlot } from './slots';
import { toOklch } from './space';
import type { Tint } from './tint';

/** A named set of colours for a pattern's slots; slots that are not named keep the pattern's own colour. */
export type Colourway = { id: string; name: string; colours: Readonly<Record<string, Tint>> };

/** One way to give the colours of a palette to slots, and how good it is. */
export type Assignment = {
  colours: Record<string, Tint>;
  /** The least contrast ratio against the ground, or between any two colours where there is none; 1 to 21. */
  contrast: number;
  /** The share of slot pairs whose lightness order is kept, 0 to 1. */
  order: number;
  score: number;
};

type Entry = { id: string; hex: Hex };

/** Assignments that are looked at: every one up to here, beyond that a beam that keeps the best of each step. */
const BEAM = 400;

/**
 * Ways to give palette colours to the slots, best first. A way is better the larger its least contrast and the more
 * of the slots' lightness order it keeps; no colour is used twice while there are enough. `ground` is the slot on
 * which all others lie, where there is one.
 */
export function proposeColourways(
  slots: readonly ColourSlot[],
  palette: readonly Entry[],
  { ground = null, most = 12 }: { ground?: string | null; most?: number } = {},
): Assignment[] {
  if (slots.length === 0 || palette.length === 0) return [];
  const ordered = [...slots].sort((one, other) => Number(other.id === ground) - Number(one.id === ground));
  const light = new Map(
    [...slots, ...palette.map(({ hex }) => ({ colour: hex }))].map(({ colour }) => [
      colour,
      toOklch(colour).l,
    ]),
  );
  let beam: Entry[][] = [[]];
  for (const _slot of ordered) {
    const grown = beam.flatMap((way) => {
      const free = palette.filter((entry) => !way.includes(entry));
      return (free.length > 0 ? free : palette).map((entry) => [...way, entry]);
    });
    beam = grown
      .map((way) => ({ way, score: judge(ordered, way, ground, light).score }))
      .sort((one, other) => other.score - one.score)
      .slice(0, BEAM)
      .map(({ way }) => way);
  }
  return beam.slice(0, most).map((way) => ({
    ...judge(ordered, way, ground, light),
    colours: Object.fromEntries(
      way.map((entry, index) => [ordered[index]!.id, { colour: entry.hex, link: entry.id }]),
    ),
  }));
}

function judge(
  slots: readonly ColourSlot[],
  way: readonly Entry[],
  ground: string | null,
  light: ReadonlyMap<Hex, number>,
): Omit<Assignment, 'colours'> {
  let contrast = 21;
  let apart = 21;
  let kept = 0;
  let pairs = 0;
  for (let one = 0; one < way.length; one += 1)
    for (let other = one + 1; other < way.length; other += 1) {
      const onGround = slots[one]!.id === ground;
      const ratio = contrastRatio(way[one]!.hex, way[other]!.hex);
      if (onGround || ground === null) contrast = Math.min(contrast, ratio);
      // Colours that do not lie on each other need less: their contrast beyond 1 counts twice.
      else apart = Math.min(apart, 1 + (ratio - 1) * 2);
      const was = light.get(slots[one]!.colour)! - light.get(slots[other]!.colour)!;
      const is = light.get(way[one]!.hex)! - light.get(way[other]!.hex)!;
      pairs += 1;
      if (Math.sign(was) === Math.sign(is)) kept += 1;
    }
  const order = pairs === 0 ? 1 : kept / pairs;
  // Contrast with the ground counts twice what contrast between neighbours does; both on a scale of ratios.
  const told = (Math.log(contrast) + Math.log(apart) / 2) / (1.5 * Math.log(21));
  return { contrast, order, score: told + order };
}

/** A colourway made by shifting every slot's colour; nothing in it follows a palette. */
export function shiftedColours(slots: readonly ColourSlot[], shift: ColourShift): Record<string, Tint> {
  return Object.fromEntries(slots.map((slot) => [slot.id, { colour: shifted(slot.colour, shift) }]));
}

import { relativeLuminance } from './contrast';
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
const BEAM = 300;

/**
 * Ways to give palette colours to the slots, best first. A way is better the larger its least contrast (up to what is
 * enough), the more of the slots' lightness order it keeps, and the more what was vivid stays vivid; no colour is used
 * twice while there are enough. `ground` is the slot on
 * which all others lie, where there is one.
 */
export function proposeColourways(
  slots: readonly ColourSlot[],
  palette: readonly Entry[],
  { ground = null, most = 12 }: { ground?: string | null; most?: number } = {},
): Assignment[] {
  if (slots.length === 0 || palette.length === 0) return [];
  const ordered = [...slots].sort((one, other) => Number(other.id === ground) - Number(one.id === ground));
  const tones = new Map(
    [...slots, ...palette.map(({ hex }) => ({ colour: hex }))].map(({ colour }) => [
      colour,
      { ...toOklch(colour), light: relativeLuminance(colour) + 0.05 },
    ]),
  );
  let beam: Entry[][] = [[]];
  for (const _slot of ordered) {
    const grown = beam.flatMap((way) => {
      const free = palette.filter((entry) => !way.includes(entry));
      return (free.length > 0 ? free : palette).map((entry) => [...way, entry]);
    });
    beam = grown
      .map((way) => ({ way, score: judge(ordered, way, ground, tones).score }))
      .sort((one, other) => other.score - one.score)
      .slice(0, BEAM)
      .map(({ way }) => way);
  }
  return various(beam, most).map((way) => ({
    ...judge(ordered, way, ground, tones),
    colours: Object.fromEntries(
      way.map((entry, index) => [ordered[index]!.id, { colour: entry.hex, link: entry.id }]),
    ),
  }));
}

/** The first `most` ways; where there are more, ways that differ from better ones in one slot alone are left out. */
function various(ways: readonly Entry[][], most: number): Entry[][] {
  if (ways.length <= most) return [...ways];
  const kept: Entry[][] = [];
  const differences = (one: Entry[], other: Entry[]): number =>
    one.filter((entry, index) => entry !== other[index]).length;
  for (const way of ways) {
    if (kept.length >= most) break;
    if (way.length < 3 || kept.every((better) => differences(way, better) > 1)) kept.push(way);
  }
  return kept;
}

/** Contrast beyond this is no better: enough for small text (WCAG 2.2, level AAA), and for colours that only meet at edges. */
const ENOUGH = { onGround: 7, apart: 3 };

/** Lightness and chroma in OKLCH, and WCAG's relative luminance with the flare that its contrast ratio adds. */
type Tone = { l: number; c: number; light: number };

function judge(
  slots: readonly ColourSlot[],
  way: readonly Entry[],
  ground: string | null,
  tones: ReadonlyMap<Hex, Tone>,
): Omit<Assignment, 'colours'> {
  let contrast = 21;
  let apart = 21;
  const kept = { l: 0, c: 0 };
  let pairs = 0;
  for (let one = 0; one < way.length; one += 1)
    for (let other = one + 1; other < way.length; other += 1) {
      const onGround = slots[one]!.id === ground;
      const [was, wasOther] = [tones.get(slots[one]!.colour)!, tones.get(slots[other]!.colour)!];
      const [is, isOther] = [tones.get(way[one]!.hex)!, tones.get(way[other]!.hex)!];
      const ratio = is.light > isOther.light ? is.light / isOther.light : isOther.light / is.light;
      if (onGround || ground === null) contrast = Math.min(contrast, ratio);
      else apart = Math.min(apart, ratio);
      pairs += 1;
      for (const tone of ['l', 'c'] as const)
        if (Math.sign(was[tone] - wasOther[tone]) === Math.sign(is[tone] - isOther[tone])) kept[tone] += 1;
    }
  const order = pairs === 0 ? 1 : kept.l / pairs;
  const vivid = pairs === 0 ? 1 : kept.c / pairs;
  const part = (ratio: number, enough: number): number => Math.min(1, Math.log(ratio) / Math.log(enough));
  const told = part(contrast, ENOUGH.onGround) + part(apart, ENOUGH.apart) / 2;
  return { contrast, order, score: told + order + vivid / 2 };
}

/** A colourway made by shifting every slot's colour; nothing in it follows a palette. */
export function shiftedColours(slots: readonly ColourSlot[], shift: ColourShift): Record<string, Tint> {
  return Object.fromEntries(slots.map((slot) => [slot.id, { colour: shifted(slot.colour, shift) }]));
}

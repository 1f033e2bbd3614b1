import { channelsOf, hexOf, type Hex } from './parse';

/** The spot ink that a palette colour is printed in: how much of it, over 0 to 1, and whether it prints over other inks. */
export type InkUse = { name: string; tint: number; overprint: boolean };

/** An ink with the looks of its tints, the lightest first; paper, at 0, is white. */
export type SpotInk = { name: string; overprint: boolean; tints: readonly { tint: number; look: Hex }[] };

/** A colour that is printed in an ink. */
export type Inked = { ink: SpotInk; tint: number };

/** A palette colour as far as inks are concerned. */
export type InkedColour = { hex: Hex; name: string; ink?: InkUse | null; gradient?: unknown };

export const PAPER: Hex = '#ffffff';

/** Names of process inks and of plates that mean something else (ISO 32000-1, 8.6.6.4, for All and None). */
const TAKEN = new Set(
  ['cyan', 'magenta', 'yellow', 'black', 'key', 'c', 'm', 'y', 'k', 'all', 'none'].flatMap((name) => [
    name,
    `process ${name}`,
  ]),
);

/** What is wrong with an ink's name; `null` for nothing. */
export function inkNameFault(name: string): string | null {
  const said = name.trim();
  if (said === '') return 'An ink has a name; type the one that the printer knows it by.';
  if (TAKEN.has(said.toLowerCase()))
    return `“${said}” is the name of a process ink or of all plates; call a spot ink by the name that the printer knows it by.`;
  return null;
}

/** What is wrong with the inks of a palette, and which colour says it; `null` for nothing. */
export function inkFault(colours: readonly InkedColour[]): { index: number; message: string } | null {
  const looks = new Map<Hex, InkedColour>();
  const names = new Map<string, InkUse>();
  for (const [index, colour] of colours.entries()) {
    const { ink, hex } = colour;
    if (!ink) continue;
    const name = inkNameFault(ink.name);
    if (name) return { index, message: name };
    if (colour.gradient)
      return { index, message: `“${colour.name}” is a gradient; name its colours as inks instead.` };
    if (hex === PAPER)
      return {
        index,
        message: `“${colour.name}” is white, which stands for the paper; give the ink another look on the screen.`,
      };
    const other = looks.get(hex);
    if (other?.ink && !sameUse(other.ink, ink))
      return {
        index,
        message: `“${colour.name}” and “${other.name}” look the same and are different inks, so that Isle could not tell them apart; change the look of one a little.`,
      };
    looks.set(hex, colour);
    const same = names.get(ink.name);
    if (same && same.overprint !== ink.overprint)
      return {
        index,
        message: `The ink “${ink.name}” prints over others in one colour and not in another; choose one for the ink.`,
      };
    names.set(ink.name, ink);
  }
  return null;
}

const sameUse = (one: InkUse, other: InkUse): boolean => one.name === other.name && one.tint === other.tint;

/**
 * The inks that a page is printed in. Whatever has exactly the colour of an ink is printed in it, as one colour in two inks would not
 * be one on paper; everything else is printed in process colours. Of two palettes that say otherwise of one colour the first holds.
 */
export class Inks {
  readonly all: readonly SpotInk[];
  private readonly byLook = new Map<Hex, Inked>();

  constructor(colours: readonly InkedColour[] = []) {
    const inked = new Map<Hex, InkUse>();
    for (const { hex, ink, gradient } of colours)
      if (ink && !gradient && hex !== PAPER && !inked.has(hex)) inked.set(hex, ink);
    const names = [...new Set([...inked.values()].map(({ name }) => name))].sort();
    this.all = names.map((name) => inkOf(name, inked));
    for (const [look, { name, tint }] of inked)
      this.byLook.set(look, { ink: this.all[names.indexOf(name)]!, tint });
  }

  /** The ink that a colour is printed in; `null` for one of process colours. */
  of(colour: Hex): Inked | null {
    return this.byLook.get(colour) ?? null;
  }

  get none(): boolean {
    return this.all.length === 0;
  }

  /** Whether any of some colours is printed in an ink. */
  has(colours: readonly Hex[]): boolean {
    return colours.some((colour) => this.byLook.has(colour));
  }

  /**
   * The inks of a gradient with so many stops: those that it can be printed in, where all of its colours are inks or paper; `null`
   * where it has to be printed in process colours.
   */
  ofStops(colours: readonly Hex[]): SpotInk[] | null {
    const found = new Set<SpotInk>();
    for (const colour of colours) {
      const inked = this.of(colour);
      if (inked) found.add(inked.ink);
      else if (colour !== PAPER) return null;
    }
    return found.size === 0 ? null : [...found];
  }
}

export const NO_INKS = new Inks();

/** An ink with all of its tints; where two looks are said of one tint the first holds. */
function inkOf(name: string, inked: ReadonlyMap<Hex, InkUse>): SpotInk {
  const uses = [...inked].filter(([, use]) => use.name === name);
  const looks = new Map([...uses].reverse().map(([look, { tint }]) => [tint, look]));
  const tints = [...looks]
    .map(([tint, look]) => ({ tint, look }))
    .sort((one, other) => one.tint - other.tint);
  return { name, overprint: uses[0]?.[1].overprint ?? false, tints };
}

/** The tints whose looks are known, with paper and, where nothing is known of it, the full ink in line with the darkest. */
export function tintsOf({
  tints,
}: Pick<SpotInk, 'tints'>): { tint: number; rgb: [number, number, number] }[] {
  const known = tints.map(({ tint, look }) => ({ tint, rgb: channelsOf(look) }));
  const paper = { tint: 0, rgb: channelsOf(PAPER) };
  const last = known.at(-1) ?? paper;
  if (last.tint >= 1 || last.tint <= 0) return [paper, ...known];
  const full = last.rgb.map((value) => Math.max(0, 255 - (255 - value) / last.tint));
  return [paper, ...known, { tint: 1, rgb: full as [number, number, number] }];
}

/** How an ink with one tint known, or several, looks when it is full. */
export const fullLook = (ink: Pick<SpotInk, 'tints'>): Hex => hexOf(tintsOf(ink).at(-1)!.rgb);

/** The share of the paper's light that each of 256 coverages of an ink leaves, red, green and blue after each other: its tints look as they are known. */
export function lightLeft(ink: Pick<SpotInk, 'tints'>): Float32Array {
  const known = tintsOf(ink);
  const light = new Float32Array(3 * 256);
  let at = 1;
  for (let coverage = 0; coverage < 256; coverage += 1) {
    while (at < known.length - 1 && coverage / 255 > known[at]!.tint) at += 1;
    const [low, high] = [known[at - 1]!, known[at] ?? known[at - 1]!];
    const span = high.tint - low.tint;
    const share = span > 0 ? (coverage / 255 - low.tint) / span : 0;
    for (let channel = 0; channel < 3; channel += 1)
      light[3 * coverage + channel] =
        (low.rgb[channel]! + share * (high.rgb[channel]! - low.rgb[channel]!)) / 255;
  }
  return light;
}

/** Lays an ink over px of `wide` bytes each: it takes away the light that it takes from paper. */
export function layInk(
  px: Uint8Array | Uint8ClampedArray,
  wide: 3 | 4,
  ink: Uint8Array,
  light: Float32Array,
): void {
  for (let at = 0; at < ink.length; at += 1) {
    const coverage = ink[at]!;
    if (coverage === 0) continue;
    for (let channel = 0; channel < 3; channel += 1)
      px[at * wide + channel] = Math.round(px[at * wide + channel]! * light[3 * coverage + channel]!);
  }
}

import { channelsOf, type Hex } from './parse';

/** What a press makes of a colour: how much ink that takes in all, 1 for each full ink, and how far it comes out from it, ΔE2000. */
export type PressedColour = { ink: number; delta: number };
export type PressView = { of: (colour: Hex) => PressedColour };

/** Steps of each channel in a table. */
export const TABLE_STEPS = 25;
/** A byte of a table is so much. */
export const INK_UNIT = 4 / 255;
export const DELTA_UNIT = 0.2;

/**
 * What a press makes of colours, from a table over red, green and blue in even steps, blue first: the ink in all and the difference of
 * each, a byte each. Between them it goes in line with the eight about a colour.
 */
export class PressTable implements PressView {
  private readonly known = new Map<Hex, PressedColour>();

  constructor(
    private readonly inks: Uint8Array,
    private readonly deltas: Uint8Array,
  ) {}

  of(colour: Hex): PressedColour {
    const held = this.known.get(colour);
    if (held) return held;
    const found = {
      ink: this.between(this.inks, colour) * INK_UNIT,
      delta: this.between(this.deltas, colour) * DELTA_UNIT,
    };
    this.known.set(colour, found);
    return found;
  }

  private between(table: Uint8Array, colour: Hex): number {
    const last = TABLE_STEPS - 1;
    const places = channelsOf(colour).map((value) => {
      const at = (value / 255) * last;
      const low = Math.min(last - 1, Math.floor(at));
      return { low, share: at - low };
    });
    const [red, green, blue] = places as [Place, Place, Place];
    let sum = 0;
    for (let corner = 0; corner < 8; corner += 1) {
      const [r, g, b] = [corner >> 2, (corner >> 1) & 1, corner & 1];
      const weight = weightOf(red, r) * weightOf(green, g) * weightOf(blue, b);
      if (weight > 0)
        sum += weight * table[((red.low + r) * TABLE_STEPS + green.low + g) * TABLE_STEPS + blue.low + b]!;
    }
    return sum;
  }
}

type Place = { low: number; share: number };
const weightOf = ({ share }: Place, up: number): number => (up === 1 ? share : 1 - share);

/** The colours that a table holds, three bytes to each, in its order. */
export function tableColours(steps = TABLE_STEPS): Uint8Array {
  const rgb = new Uint8Array(3 * steps ** 3);
  for (let at = 0; at < steps ** 3; at += 1) {
    const parts = [Math.floor(at / steps ** 2), Math.floor(at / steps) % steps, at % steps];
    for (const [channel, part] of parts.entries())
      rgb[3 * at + channel] = Math.round((part / (steps - 1)) * 255);
  }
  return rgb;
}

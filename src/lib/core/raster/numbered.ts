import { channelsOf, type Hex } from '../colour/parse';

/**
 * A numbered picture names colours instead of holding them: of each pixel the first channel is the number of its colour,
 * the second that of another one, the third how much of the other is mixed in (0 to 255 of 255). Its alpha is its own.
 * So every use can give the numbers other colours, and edges between two colours stay smooth. It is kept as any RGBA is.
 */
export type Numbered = { width: number; height: number; data: Uint8Array | Uint8ClampedArray };

/** Puts colours in the place of the numbers, in place; alpha stays. A number without a colour is that of the last one. */
export function colourNumbered({ data }: Numbered, colours: readonly Hex[]): void {
  const channels = colours.map(channelsOf);
  const last = channels.length - 1;
  for (let at = 0; at < data.length; at += 4) {
    const one = channels[Math.min(data[at]!, last)]!;
    const other = channels[Math.min(data[at + 1]!, last)]!;
    const share = data[at + 2]! / 255;
    for (let channel = 0; channel < 3; channel += 1)
      data[at + channel] = Math.round(one[channel]! + (other[channel]! - one[channel]!) * share);
  }
}

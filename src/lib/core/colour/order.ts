import { deltaE2000 } from './difference';
import type { Hex } from './parse';
import { toOklch } from './space';

export type OrderBy = 'lightness' | 'hue' | 'chroma';

/** Entries sorted by a property of their colour in OKLCH; greys come first by hue. */
export function orderColours<T extends { hex: Hex }>(entries: readonly T[], by: OrderBy): T[] {
  const key = ({ hex }: T): number => {
    const { l, c, h } = toOklch(hex);
    if (by === 'lightness') return l;
    return by === 'chroma' ? c : c < 0.02 ? -1 + l : h;
  };
  return [...entries].sort((one, other) => key(one) - key(other));
}

/** Groups of entries that are nearer than `deltaE` (ΔE2000) to the first of their group; single ones are left out. */
export function nearDuplicates<T extends { hex: Hex }>(entries: readonly T[], deltaE: number): T[][] {
  const groups: T[][] = [];
  for (const entry of entries) {
    const home = groups.find(([first]) => first && deltaE2000(first.hex, entry.hex) < deltaE);
    if (home) home.push(entry);
    else groups.push([entry]);
  }
  return groups.filter((group) => group.length > 1);
}

/** The entry nearest to a colour by ΔE2000, or `null` for none. */
export function nearestColour<T extends { hex: Hex }>(entries: readonly T[], hex: Hex): T | null {
  let best: { entry: T; distance: number } | null = null;
  for (const entry of entries) {
    const distance = deltaE2000(entry.hex, hex);
    if (!best || distance < best.distance) best = { entry, distance };
  }
  return best?.entry ?? null;
}

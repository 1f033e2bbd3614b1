/** An opaque sRGB colour as `#rrggbb`, lower case: the one form in which Isle keeps colours. */
export type Hex = string;

const HEX = /^#[0-9a-f]{6}$/;

/** True for `#rrggbb` in lower case. */
export const isHex = (value: unknown): value is Hex => typeof value === 'string' && HEX.test(value);

/** The three channels of `#rrggbb`, 0 to 255. */
export function channelsOf(hex: Hex): [number, number, number] {
  const value = Number.parseInt(hex.slice(1), 16);
  return [(value >> 16) & 255, (value >> 8) & 255, value & 255];
}

/** Channels 0 to 255 → `#rrggbb`. Inverse of {@link channelsOf}. */
export function hexOf(channels: readonly [number, number, number]): Hex {
  return `#${channels.map((channel) => Math.round(channel).toString(16).padStart(2, '0')).join('')}`;
}

import { formatHex, parse, rgb } from 'culori';

/** An opaque sRGB colour as `#rrggbb`, lower case: the one form in which Isle keeps colours. */
export type Hex = string;

export type ColourResult = { ok: true; hex: Hex } | { ok: false; message: string };

/** Half of the smallest step of an eight-bit channel: rounding takes care of as much. */
const HALF_STEP = 0.5 / 255;

const HEX = /^#[0-9a-f]{6}$/;

/** True for `#rrggbb` in lower case. */
export const isHex = (value: unknown): value is Hex => typeof value === 'string' && HEX.test(value);

/**
 * Reads a colour as CSS Color 4 writes it (hex with or without #, names, rgb(), hsl(), oklch() …) into `#rrggbb`.
 * Colours outside sRGB and colours with alpha are refused: opacity is a property of its own in Isle.
 */
export function readColour(text: string): ColourResult {
  const source = text.trim();
  const bare = /^[0-9a-f]{3}([0-9a-f]{3})?$/i.test(source) ? `#${source}` : source;
  const parsed = parse(bare);
  if (!parsed)
    return { ok: false, message: `“${source}” is not a colour; write one such as #0d5a50 or teal.` };
  if (parsed.alpha !== undefined && parsed.alpha < 1)
    return {
      ok: false,
      message: `“${source}” is see-through; give the full colour and set the opacity instead.`,
    };
  const converted = rgb(parsed);
  const channels = [converted.r, converted.g, converted.b];
  if (channels.some((channel) => channel < -HALF_STEP || channel > 1 + HALF_STEP))
    return { ok: false, message: `“${source}” lies outside sRGB; choose one that a screen can show.` };
  return { ok: true, hex: formatHex(converted) };
}

/** The three channels of `#rrggbb`, 0 to 255. */
export function channelsOf(hex: Hex): [number, number, number] {
  const value = Number.parseInt(hex.slice(1), 16);
  return [(value >> 16) & 255, (value >> 8) & 255, value & 255];
}

/** Channels 0 to 255 → `#rrggbb`. Inverse of {@link channelsOf}. */
export function hexOf(channels: readonly [number, number, number]): Hex {
  return `#${channels.map((channel) => Math.round(channel).toString(16).padStart(2, '0')).join('')}`;
}

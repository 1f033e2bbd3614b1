import { converter, differenceEuclidean, formatHex, inGamut, parse, toGamut } from 'culori';
import type { Hex } from './parse';

/** OKLab as CSS Color 4 defines it: `l` 0 to 1, `a` and `b` about −0.4 to 0.4. */
export type Oklab = { l: number; a: number; b: number };

/** OKLCH as CSS Color 4 defines it: `l` 0 to 1, `c` 0 to about 0.4, `h` degrees. Greys have hue 0. */
export type Oklch = { l: number; c: number; h: number };

/** Half of the smallest step of an eight-bit channel: rounding takes care of as much. */
const HALF_STEP = 0.5 / 255;

const rgbOf = converter('rgb');
const oklabOf = converter('oklab');
const oklchOf = converter('oklch');
const inSrgb = inGamut('rgb');
/** The gamut mapping of CSS Color 4, section 13.2: chroma is reduced in OKLCH, then clipped within ΔEOK 0.02. */
const mapped = toGamut(
  'rgb',
  'oklch',
  // The package's types ask for a number here; its code takes the distance that CSS Color 4 names.
  differenceEuclidean('oklab') as unknown as number,
  0.02,
);

/** A colour in OKLab. */
export function toOklab(hex: Hex): Oklab {
  const { l, a, b } = oklabOf(hex) ?? { l: 0, a: 0, b: 0 };
  return { l, a, b };
}

/** A colour in OKLCH. */
export function toOklch(hex: Hex): Oklch {
  const { l, c, h } = oklchOf(hex) ?? { l: 0, c: 0 };
  return { l, c: c < 1e-5 ? 0 : c, h: c < 1e-5 ? 0 : (h ?? 0) };
}

/** OKLCH → sRGB, mapped into sRGB where it lies outside. Inverse of {@link toOklch} within sRGB. */
export const fromOklch = ({ l, c, h }: Oklch): Hex => formatHex(mapped({ mode: 'oklch', l, c, h }));

/** OKLab → sRGB, mapped into sRGB where it lies outside. Inverse of {@link toOklab} within sRGB. */
export const fromOklab = ({ l, a, b }: Oklab): Hex => formatHex(mapped({ mode: 'oklab', l, a, b }));

/** True where sRGB can show an OKLCH colour. */
export const isInSrgb = ({ l, c, h }: Oklch): boolean =>
  inSrgb({ mode: 'oklch', l, c: Math.max(0, c - 1e-6), h });

/** The largest chroma that sRGB shows at a lightness and hue, to 1e-4. */
export function mostChroma(l: number, h: number): number {
  let [low, high] = [0, 0.4];
  while (high - low > 1e-4) {
    const middle = (low + high) / 2;
    if (isInSrgb({ l, c: middle, h })) low = middle;
    else high = middle;
  }
  return low;
}

/** What the package makes of a text; it throws at some that are no colours. */
function parsedColour(text: string): ReturnType<typeof parse> {
  try {
    return parse(text);
  } catch {
    return undefined;
  }
}

export type ColourResult = { ok: true; hex: Hex; outside: boolean } | { ok: false; message: string };

/**
 * Reads a colour as CSS Color 4 writes it, wide gamuts included: one outside sRGB is mapped by CSS Color 4's method
 * and marked `outside`. Colours with alpha are refused, since opacity is a property of its own in Isle.
 */
export function readColour(text: string): ColourResult {
  const source = text.trim();
  const bare = /^[0-9a-f]{3}([0-9a-f]{3})?$/i.test(source) ? `#${source}` : source;
  const parsed = source.length > 200 ? undefined : parsedColour(bare);
  if (!parsed)
    return {
      ok: false,
      message: `“${source.slice(0, 60)}” is not a colour; write one such as #0d5a50 or teal.`,
    };
  if (parsed.alpha !== undefined && parsed.alpha < 1)
    return {
      ok: false,
      message: `“${source}” is see-through; give the full colour and set the opacity instead.`,
    };
  const { r, g, b } = rgbOf(parsed);
  if (![r, g, b].every(Number.isFinite))
    return { ok: false, message: `“${source}” has a channel that is no number.` };
  const outside = [r, g, b].some((channel) => channel < -HALF_STEP || channel > 1 + HALF_STEP);
  // A colour that sRGB can show is written as it is; the way through OKLCH would cost it its last digit.
  return { ok: true, hex: formatHex(outside ? mapped(parsed) : parsed), outside };
}

/** A colour of a drawing as CSS Color 4 writes it, with its alpha; mapped into sRGB. `null` for what is no colour. */
export function readPaint(text: string): { hex: Hex; alpha: number } | null {
  const source = text.trim();
  if (source.length > 200) return null;
  const parsed = parsedColour(source);
  if (!parsed) return null;
  const { alpha = 1 } = parsed;
  const opaque = { ...parsed, alpha: undefined };
  const { r, g, b } = rgbOf(opaque);
  if (![r, g, b].every(Number.isFinite)) return null;
  const outside = [r, g, b].some((channel) => channel < -HALF_STEP || channel > 1 + HALF_STEP);
  return {
    hex: formatHex(outside ? mapped(opaque) : opaque).slice(0, 7),
    alpha: Math.min(1, Math.max(0, alpha)),
  };
}

/** A colour as a CSS oklch() function. */
export function sayOklch(hex: Hex): string {
  const { l, c, h } = toOklch(hex);
  return `oklch(${+l.toFixed(4)} ${+c.toFixed(4)} ${+h.toFixed(2)})`;
}

/** Perceived distance in OKLab (ΔEOK of CSS Color 4). */
export function deltaOk(one: Oklab, other: Oklab): number {
  return Math.hypot(one.l - other.l, one.a - other.a, one.b - other.b);
}

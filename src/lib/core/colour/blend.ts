/**
 * The sixteen blend modes of W3C Compositing and Blending Level 1, under the standard's own names. In the formulas
 * `b` is the backdrop's colour and `s` the source's, both 0 to 1 and not premultiplied.
 */
export const BLEND_MODES = [
  'normal',
  'multiply',
  'screen',
  'overlay',
  'darken',
  'lighten',
  'color-dodge',
  'color-burn',
  'hard-light',
  'soft-light',
  'difference',
  'exclusion',
  'hue',
  'saturation',
  'color',
  'luminosity',
] as const;
export type BlendMode = (typeof BLEND_MODES)[number];

type Channel = (b: number, s: number) => number;

/** The separable modes: each channel for itself (section 9.1 of the standard). */
const SEPARABLE: Partial<Record<BlendMode, Channel>> = {
  normal: (_b, s) => s,
  multiply: (b, s) => b * s,
  screen: (b, s) => screen(b, s),
  overlay: (b, s) => hardLight(s, b),
  darken: (b, s) => Math.min(b, s),
  lighten: (b, s) => Math.max(b, s),
  'color-dodge': (b, s) => (b === 0 ? 0 : s >= 1 ? 1 : Math.min(1, b / (1 - s))),
  'color-burn': (b, s) => (b >= 1 ? 1 : s <= 0 ? 0 : 1 - Math.min(1, (1 - b) / s)),
  'hard-light': (b, s) => hardLight(b, s),
  'soft-light': (b, s) => softLight(b, s),
  difference: (b, s) => Math.abs(b - s),
  exclusion: (b, s) => b + s - 2 * b * s,
};

const screen: Channel = (b, s) => b + s - b * s;

const hardLight: Channel = (b, s) => (s <= 0.5 ? b * 2 * s : screen(b, 2 * s - 1));

const softLight: Channel = (b, s) => {
  if (s <= 0.5) return b - (1 - 2 * s) * b * (1 - b);
  const d = b <= 0.25 ? ((16 * b - 12) * b + 4) * b : Math.sqrt(b);
  return b + (2 * s - 1) * (d - b);
};

export type Rgb = readonly [number, number, number];

/** B(b, s) of a mode: the colour that source and backdrop give where both are opaque. */
export function blendColour(mode: BlendMode, b: Rgb, s: Rgb): Rgb {
  const out: Channels = [0, 0, 0];
  blendInto(out, mode, b, s);
  return out;
}

/** As {@link blendColour}, into `out`, which must be neither `b` nor `s`: pages of pixels are mixed without an allocation. */
export function blendInto(out: Channels, mode: BlendMode, b: Rgb, s: Rgb): void {
  const channel = SEPARABLE[mode];
  if (channel) return set(out, channel(b[0], s[0]), channel(b[1], s[1]), channel(b[2], s[2]));
  const [r, g, blue] = mode === 'hue' || mode === 'color' ? s : b;
  set(out, r, g, blue);
  if (mode === 'hue') setSat(out, sat(b));
  if (mode === 'saturation') setSat(out, sat(s));
  setLum(out, lum(mode === 'luminosity' ? s : b));
}

/** A colour that is worked on in place. */
export type Channels = [number, number, number];

function set(out: Channels, r: number, g: number, b: number): void {
  out[0] = r;
  out[1] = g;
  out[2] = b;
}

// The non-separable modes work on luminosity and saturation (section 9.2 of the standard).

const lum = (colour: Rgb): number => 0.3 * colour[0] + 0.59 * colour[1] + 0.11 * colour[2];
const least = (colour: Rgb): number => Math.min(colour[0], colour[1], colour[2]);
const most = (colour: Rgb): number => Math.max(colour[0], colour[1], colour[2]);
const sat = (colour: Rgb): number => most(colour) - least(colour);

function setLum(colour: Channels, light: number): void {
  const d = light - lum(colour);
  set(colour, colour[0] + d, colour[1] + d, colour[2] + d);
  const l = lum(colour);
  const n = least(colour);
  const x = most(colour);
  if (n < 0) towards(colour, l, l / (l - n));
  if (x > 1) towards(colour, l, (1 - l) / (x - l));
}

/** Draws each channel towards `l` until only `share` of its distance is left. */
const towards = (colour: Channels, l: number, share: number): void =>
  set(colour, l + (colour[0] - l) * share, l + (colour[1] - l) * share, l + (colour[2] - l) * share);

function setSat(colour: Channels, wanted: number): void {
  const n = least(colour);
  const span = most(colour) - n;
  const share = span === 0 ? 0 : wanted / span;
  set(colour, (colour[0] - n) * share, (colour[1] - n) * share, (colour[2] - n) * share);
}

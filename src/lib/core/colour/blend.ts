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
  const channel = SEPARABLE[mode];
  if (channel) return [channel(b[0], s[0]), channel(b[1], s[1]), channel(b[2], s[2])];
  switch (mode) {
    case 'hue':
      return setLum(setSat(s, sat(b)), lum(b));
    case 'saturation':
      return setLum(setSat(b, sat(s)), lum(b));
    case 'color':
      return setLum(s, lum(b));
    default:
      return setLum(b, lum(s));
  }
}

// The non-separable modes work on luminosity and saturation (section 9.2 of the standard).

const lum = ([r, g, b]: Rgb): number => 0.3 * r + 0.59 * g + 0.11 * b;

const sat = (colour: Rgb): number => Math.max(...colour) - Math.min(...colour);

function clipColour(colour: Rgb): Rgb {
  const l = lum(colour);
  const least = Math.min(...colour);
  const most = Math.max(...colour);
  const clip = (channel: number): number => {
    let value = channel;
    if (least < 0) value = l + ((value - l) * l) / (l - least);
    if (most > 1) value = l + ((value - l) * (1 - l)) / (most - l);
    return value;
  };
  return [clip(colour[0]), clip(colour[1]), clip(colour[2])];
}

function setLum(colour: Rgb, l: number): Rgb {
  const d = l - lum(colour);
  return clipColour([colour[0] + d, colour[1] + d, colour[2] + d]);
}

function setSat(colour: Rgb, s: number): Rgb {
  const least = Math.min(...colour);
  const span = Math.max(...colour) - least;
  if (span === 0) return [0, 0, 0];
  const scale = (channel: number): number => ((channel - least) * s) / span;
  return [scale(colour[0]), scale(colour[1]), scale(colour[2])];
}

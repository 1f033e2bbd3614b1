import { LINEAR } from '../colour/contrast';
import { labOfLinear, linearOfLab } from '../colour/oklab';
import { channelsOf } from '../colour/parse';
import { toOklab, type Oklab } from '../colour/space';
import { clamp } from '../num/tolerance';
import {
  PLAIN_LEVELS,
  TONE_CHANNELS,
  type ColourAlone,
  type ToneLevels,
  type Tone,
} from '../recipe/pictured';
import type { Sample } from './patch';

/** Changes a premultiplied sample (four channels, 0 to 255) in place. */
export type ToneChange = (sample: Sample) => void;

/** How finely the curve of a channel is kept: so many steps to one of the eight bits. */
const FINE = 8;

/** What a tone does to one sample, `even` aside; `null` where it leaves everything as it is. */
export function toneChange(tone: Tone): ToneChange | null {
  if (!tone.on) return null;
  const curves = curvesOf(tone);
  const chroma = tone.grey ? 0 : 1 + tone.saturation;
  const alone = (tone.alone ?? []).map(aloneChange);
  if (!curves && chroma === 1 && alone.length === 0) return null;
  return (sample) => {
    const alpha = sample[3]!;
    if (alpha <= 0) return;
    const whole = 255 / alpha;
    for (let channel = 0; channel < 3; channel += 1) {
      const value = clamp(sample[channel]! * whole, 0, 255);
      sample[channel] = curves ? curves[channel]![Math.round(value * FINE)]! : value;
    }
    if (chroma !== 1) {
      const [r, g, b] = [linear(sample[0]!), linear(sample[1]!), linear(sample[2]!)];
      // Relative luminance (WCAG 2.2, from IEC 61966-2-1): what of a colour stays when its chroma goes.
      const light = 0.2126 * r + 0.7152 * g + 0.0722 * b;
      sample[0] = encoded(light + (r - light) * chroma);
      sample[1] = encoded(light + (g - light) * chroma);
      sample[2] = encoded(light + (b - light) * chroma);
    }
    if (alone.length > 0) {
      labOfLinear(linear(sample[0]!), linear(sample[1]!), linear(sample[2]!), lab);
      for (const change of alone) change(lab);
      linearOfLab(lab, sample);
      for (let channel = 0; channel < 3; channel += 1) sample[channel] = encoded(sample[channel]!);
    }
    for (let channel = 0; channel < 3; channel += 1) sample[channel] = sample[channel]! / whole;
  };
}

const lab: Oklab = { l: 0, a: 0, b: 0 };

/** Below this chroma a colour has no hue to speak of; from twice as much on it counts wholly. */
const GREY = 0.02;

/** Changes what has one colour's hue. */
function aloneChange({ colour, reach, hue, chroma, light }: ColourAlone): (lab: Oklab) => void {
  const centre = toOklab(colour);
  const angle = Math.atan2(centre.b, centre.a);
  const [far, turn] = [(reach * Math.PI) / 180, (hue * Math.PI) / 180];
  return (lab) => {
    const held = Math.hypot(lab.a, lab.b);
    if (held <= GREY) return;
    let away = Math.abs(Math.atan2(lab.b, lab.a) - angle);
    if (away > Math.PI) away = 2 * Math.PI - away;
    const share = smooth((far - away) / (far / 2)) * smooth(held / GREY - 1);
    if (share === 0) return;
    const [cos, sin] = [Math.cos(turn * share), Math.sin(turn * share)];
    const factor = 1 + chroma * share;
    const { a, b } = lab;
    lab.a = (a * cos - b * sin) * factor;
    lab.b = (a * sin + b * cos) * factor;
    // Towards white or black by a share of what is left of the way.
    lab.l += light * share * (light > 0 ? 1 - lab.l : lab.l);
  };
}

/** From 0 to 1 without a corner, held at both. */
function smooth(value: number): number {
  const t = clamp(value, 0, 1);
  return t * t * (3 - 2 * t);
}

/** The curve of each channel over 0 … 255, or `null` where all of them are straight. */
function curvesOf(tone: Tone): Float64Array[] | null {
  const { exposure, neutral, contrast, channels } = tone;
  const own = TONE_CHANNELS.map((channel) => channels?.[channel] ?? PLAIN_LEVELS);
  const plain =
    exposure === 0 && neutral === null && contrast === 0 && [tone, ...own].every((levels) => isPlain(levels));
  if (plain) return null;
  const gains = neutral === null ? [1, 1, 1] : greyGains(channelsOf(neutral));
  return gains.map((gain, channel) => {
    const curve = new Float64Array(255 * FINE + 1);
    for (let at = 0; at < curve.length; at += 1) {
      const exposed = encoded(linear(at / FINE) * gain * 2 ** exposure);
      const first = own[channel]!;
      curve[at] = levelled(isPlain(first) ? exposed : levelled(exposed, first, 0), tone, contrast);
    }
    return curve;
  });
}

const isPlain = ({ black, middle, white, low, high }: ToneLevels): boolean =>
  black === 0 && middle === 1 && white === 255 && low === 0 && high === 255;

/** A value through levels, with the contrast between them. */
function levelled(value: number, { black, middle, white, low, high }: ToneLevels, contrast: number): number {
  const share = clamp((value - black) / Math.max(1, white - black), 0, 1) ** (1 / middle);
  return clamp(low + steeper(share, contrast) * (high - low), 0, 255);
}

/** How much each linear channel is raised so that a colour becomes a grey of its own luminance. */
function greyGains(channels: readonly [number, number, number]): number[] {
  const parts = channels.map((channel) => Math.max(linear(channel), 1e-3));
  const light = 0.2126 * parts[0]! + 0.7152 * parts[1]! + 0.0722 * parts[2]!;
  return parts.map((part) => light / part);
}

/** A curve through (0,0), (½,½) and (1,1): steeper in the middle for a contrast above 0, flatter below it. */
function steeper(share: number, contrast: number): number {
  if (contrast === 0) return share;
  const power = 2 ** (contrast * 2);
  return share < 0.5 ? 0.5 * (2 * share) ** power : 1 - 0.5 * (2 * (1 - share)) ** power;
}

function linear(value: number): number {
  const at = clamp(value, 0, 255);
  const low = Math.floor(at);
  const next = LINEAR[Math.min(255, low + 1)]!;
  return LINEAR[low]! + (next - LINEAR[low]!) * (at - low);
}

function encoded(value: number): number {
  if (!(value > 0)) return 0;
  if (value >= 1) return 255;
  return 255 * (value <= 0.0031308 ? value * 12.92 : 1.055 * value ** (1 / 2.4) - 0.055);
}

import { LINEAR } from '../colour/contrast';
import { channelsOf } from '../colour/parse';
import { clamp } from '../num/tolerance';
import type { Tone } from '../recipe/pictured';
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
  if (!curves && chroma === 1) return null;
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
    for (let channel = 0; channel < 3; channel += 1) sample[channel] = sample[channel]! / whole;
  };
}

/** The curve of each channel over 0 … 255, or `null` where all of them are straight. */
function curvesOf(tone: Tone): Float64Array[] | null {
  const { exposure, neutral, black, middle, white, low, high, contrast } = tone;
  const plain =
    exposure === 0 &&
    neutral === null &&
    black === 0 &&
    middle === 1 &&
    white === 255 &&
    low === 0 &&
    high === 255 &&
    contrast === 0;
  if (plain) return null;
  const gains = neutral === null ? [1, 1, 1] : greyGains(channelsOf(neutral));
  return gains.map((gain) => {
    const curve = new Float64Array(255 * FINE + 1);
    for (let at = 0; at < curve.length; at += 1) {
      const exposed = encoded(linear(at / FINE) * gain * 2 ** exposure);
      const share = clamp((exposed - black) / Math.max(1, white - black), 0, 1) ** (1 / middle);
      curve[at] = clamp(low + steeper(share, contrast) * (high - low), 0, 255);
    }
    return curve;
  });
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

import { BLEND_MODES, blendColour, blendInto, type BlendMode, type Channels } from '../colour/blend';
import { wordsOf } from './words';

/** A picture in memory: rows of RGBA, eight bits a channel, premultiplied by alpha. */
export type Raster = { width: number; height: number; data: Uint8Array };

/** How much of each pixel of a layer counts, 0 to 255: `data` holds it every `step` bytes from `first` on. */
export type Cover = { data: Uint8Array; step: 1 | 4; first: 0 | 3 };

/** The alpha of a drawing as a cover. */
export const alphaOf = ({ data }: Raster): Cover => ({ data, step: 4, first: 3 });

/** Two covers of the same size as one: what either hides is hidden. */
export function joinCovers(one: Cover | null, other: Cover | null): Cover | null {
  if (!one || !other) return one ?? other;
  const size = one.data.length / one.step;
  const data = new Uint8Array(size);
  for (let at = 0; at < size; at += 1)
    data[at] = over255(one.data[at * one.step + one.first]! * other.data[at * other.step + other.first]!);
  return { data, step: 1, first: 0 };
}

export type LayOptions = { cover?: Cover | null; opacity?: number; blend?: BlendMode };

/**
 * Lays `layer` over `base` with its upper left corner at (x, y): source-over and the blend modes of W3C Compositing and
 * Blending Level 1 on premultiplied colour. `cover` has the layer's size; `opacity` is 0 to 1. Changes `base`.
 */
export function layOver(base: Raster, layer: Raster, x: number, y: number, options: LayOptions = {}): void {
  const { cover = null, opacity = 1, blend = 'normal' } = options;
  const strength = Math.round(opacity * 255);
  const mix = blend === 'normal' ? null : mixer(blend);
  const firstColumn = Math.max(0, -x);
  const lastColumn = Math.min(layer.width, base.width - x);
  const from = layer.data;
  const to = base.data;
  // What is opaque takes the place of what is below it, a whole pixel at a time where the memory lies for that.
  const replaces = cover === null && strength === 255 && mix === null && to.byteOffset % 4 === 0;
  const words = replaces ? { from: wordsOf(from), to: wordsOf(to) } : null;
  for (let row = Math.max(0, -y); row < Math.min(layer.height, base.height - y); row += 1) {
    let at = (row * layer.width + firstColumn) * 4;
    let under = ((row + y) * base.width + x + firstColumn) * 4;
    for (let column = firstColumn; column < lastColumn; column += 1, at += 4, under += 4) {
      const alpha = from[at + 3]!;
      if (alpha === 0) continue;
      if (words && alpha === 255) {
        words.to[under >> 2] = words.from[at >> 2]!;
        continue;
      }
      const shown = cover ? over255(cover.data[(at >> 2) * cover.step + cover.first]! * strength) : strength;
      if (shown === 0) continue;
      if (mix) {
        mix(to, under, from, at, shown);
        continue;
      }
      const kept = 255 - over255(alpha * shown);
      if (kept === 0) {
        to[under] = from[at]!;
        to[under + 1] = from[at + 1]!;
        to[under + 2] = from[at + 2]!;
        to[under + 3] = 255;
        continue;
      }
      to[under] = over255(from[at]! * shown + to[under]! * kept);
      to[under + 1] = over255(from[at + 1]! * shown + to[under + 1]! * kept);
      to[under + 2] = over255(from[at + 2]! * shown + to[under + 2]! * kept);
      to[under + 3] = over255(alpha * shown + to[under + 3]! * kept);
    }
  }
}

/** Mixes one pixel of a layer, counted by `shown` / 255, into the base. */
type Mixer = (base: Uint8Array, to: number, layer: Uint8Array, from: number, shown: number) => void;

/** co = cs·αs·(1 − αb) + cb·αb·(1 − αs) + αs·αb·B(cb, cs), on premultiplied bytes. */
const mixer = (mode: BlendMode): Mixer =>
  isSeparable(mode) ? channelMixer(channelTable(mode)) : colourMixer(mode);

function channelMixer(table: Float32Array): Mixer {
  return (base, to, layer, from, shown) => {
    const alpha = layer[from + 3]!;
    const under = base[to + 3]!;
    const source = (alpha * shown) / 65025;
    const backdrop = under / 255;
    for (let channel = 0; channel < 3; channel += 1) {
      const s = straight(layer[from + channel]!, alpha);
      const held = base[to + channel]!;
      const mixed = table[straight(held, under) * 256 + s]!;
      base[to + channel] = Math.round(
        source * (1 - backdrop) * s + held * (1 - source) + source * backdrop * mixed,
      );
    }
    base[to + 3] = Math.round((source + backdrop - source * backdrop) * 255);
  };
}

function colourMixer(mode: BlendMode): Mixer {
  const b: Channels = [0, 0, 0];
  const s: Channels = [0, 0, 0];
  const mixed: Channels = [0, 0, 0];
  return (base, to, layer, from, shown) => {
    const alpha = layer[from + 3]!;
    const under = base[to + 3]!;
    const source = (alpha * shown) / 65025;
    const backdrop = under / 255;
    for (let channel = 0; channel < 3; channel += 1) {
      b[channel] = straight(base[to + channel]!, under) / 255;
      s[channel] = straight(layer[from + channel]!, alpha) / 255;
    }
    blendInto(mixed, mode, b, s);
    for (let channel = 0; channel < 3; channel += 1)
      base[to + channel] = Math.round(
        255 * source * ((1 - backdrop) * s[channel]! + backdrop * mixed[channel]!) +
          base[to + channel]! * (1 - source),
      );
    base[to + 3] = Math.round((source + backdrop - source * backdrop) * 255);
  };
}

/** A premultiplied byte as it was before. */
const straight = (value: number, alpha: number): number =>
  alpha === 255 ? value : alpha === 0 ? 0 : Math.min(255, Math.round((value * 255) / alpha));

const isSeparable = (mode: BlendMode): boolean => BLEND_MODES.indexOf(mode) < BLEND_MODES.indexOf('hue');

/** B(b, s) for every pair of bytes, times 255: a blend of whole pages looks it up. */
function channelTable(mode: BlendMode): Float32Array {
  const table = new Float32Array(65536);
  for (let b = 0; b < 256; b += 1)
    for (let s = 0; s < 256; s += 1) {
      const one = blendColour(mode, [b / 255, 0, 0], [s / 255, 0, 0])[0];
      table[b * 256 + s] = one * 255;
    }
  return table;
}

/** value / 255, rounded to the nearest whole number; `value` is 0 to 65025. */
const over255 = (value: number): number => ((value + 128) * 257) >> 16;

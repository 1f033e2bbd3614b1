import { clamp } from '../num/tolerance';
import type { Pictured } from '../recipe/pictured';
import type { Raster } from '../raster/composite';
import { smoothPart } from './fourier';
import { samplesCubic, type Sample } from './patch';
import { placing, type Place } from './straight';
import { toneChange, type ToneChange } from './tone';

/** A picture as it is at hand: perhaps smaller than it is, `scale` px of it to one of its own. */
export type AtHand = { picture: Raster; scale: number };

/** A region of a picture through its tone, looked at in many places at once: a row of pixels, or the quarters of one. */
export class Look {
  private readonly place: Place;
  private readonly change: ToneChange | null;
  private readonly even: EvenLight | null;
  private places = new Float64Array(0);
  private samples = new Float64Array(0);
  private readonly one: Sample = new Float64Array(4);

  constructor(
    private readonly at: AtHand,
    pictured: Pictured,
  ) {
    this.place = placing(pictured.region, at.scale);
    this.change = toneChange(pictured.tone);
    const { on, even } = pictured.tone;
    this.even = on && even > 0 ? evenLight(at.picture, this.place, pictured) : null;
  }

  /**
   * What lies at places of the region, px from its upper left corner, x and y of each of `count` in turn: four channels of
   * each, premultiplied. What is answered is written over by the next look.
   */
  see(places: Float64Array, count: number): Float64Array {
    if (this.places.length < 2 * count) {
      this.places = new Float64Array(2 * count);
      this.samples = new Float64Array(4 * count);
    }
    const { samples, one, even, change } = this;
    this.places.set(places.subarray(0, 2 * count));
    this.place(this.places, count);
    samplesCubic(this.at.picture, this.places, count, samples);
    if (!even && !change) return samples;
    for (let index = 0; index < count; index += 1) {
      const from = 4 * index;
      one[0] = samples[from]!;
      one[1] = samples[from + 1]!;
      one[2] = samples[from + 2]!;
      one[3] = samples[from + 3]!;
      even?.(places[2 * index]!, places[2 * index + 1]!, one);
      change?.(one);
      samples.set(one, from);
    }
    return samples;
  }
}

type EvenLight = (u: number, v: number, into: Sample) => void;

/** Samples along the longer side from which a slow change of light is read. */
const EVEN_SIDE = 64;

/** Takes a slow change of light over the region away: the smooth part of the region, seen from afar. */
function evenLight(picture: Raster, place: Place, { region, tone }: Pictured): EvenLight {
  const fit = EVEN_SIDE / Math.max(region.width, region.height);
  const width = Math.max(2, Math.round(region.width * fit));
  const height = Math.max(2, Math.round(region.height * fit));
  const rasters = meanOver(picture, place, region, width, height);
  const parts = rasters.map((values) => smoothPart({ width, height, values }).values);
  return (u, v, into) => {
    const x = clamp((u / region.width) * width - 0.5, 0, width - 1);
    const y = clamp((v / region.height) * height - 0.5, 0, height - 1);
    const [left, top] = [Math.min(width - 2, Math.floor(x)), Math.min(height - 2, Math.floor(y))];
    const [fx, fy] = [x - left, y - top];
    const alpha = into[3]! / 255;
    for (let channel = 0; channel < 3; channel += 1) {
      const part = parts[channel]!;
      const at = top * width + left;
      const upper = part[at]! * (1 - fx) + part[at + 1]! * fx;
      const lower = part[at + width]! * (1 - fx) + part[at + width + 1]! * fx;
      into[channel] = into[channel]! - tone.even * alpha * (upper * (1 - fy) + lower * fy);
    }
  };
}

/** The mean of a region over a grid, channel by channel: so many samples to a field that a slow change is read, not a detail. */
function meanOver(
  picture: Raster,
  place: Place,
  region: { width: number; height: number },
  width: number,
  height: number,
): Float64Array[] {
  const SAMPLES = 4;
  const channels = [0, 1, 2].map(() => new Float64Array(width * height));
  const spots = new Float64Array(2 * SAMPLES ** 2);
  const samples = new Float64Array(4 * SAMPLES ** 2);
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1) {
      for (let at = 0; at < SAMPLES ** 2; at += 1) {
        spots[2 * at] = ((x + ((at % SAMPLES) + 0.5) / SAMPLES) / width) * region.width;
        spots[2 * at + 1] = ((y + (Math.floor(at / SAMPLES) + 0.5) / SAMPLES) / height) * region.height;
      }
      place(spots, SAMPLES ** 2);
      samplesCubic(picture, spots, SAMPLES ** 2, samples);
      for (let at = 0; at < SAMPLES ** 2; at += 1)
        for (let channel = 0; channel < 3; channel += 1)
          channels[channel]![y * width + x]! += samples[4 * at + channel]! / SAMPLES ** 2;
    }
  return channels;
}

/** Writes samples as eight bits, premultiplied: no channel above its alpha. */
export function writeSamples(samples: Float64Array, count: number, data: Uint8Array, at: number): void {
  for (let from = 0; from < 4 * count; from += 4) {
    const alpha = byte(samples[from + 3]!, 255);
    data[at + from] = byte(samples[from]!, alpha);
    data[at + from + 1] = byte(samples[from + 1]!, alpha);
    data[at + from + 2] = byte(samples[from + 2]!, alpha);
    data[at + from + 3] = alpha;
  }
}

const byte = (value: number, most: number): number => {
  const whole = Math.round(value);
  return whole <= 0 ? 0 : whole >= most ? most : whole;
};

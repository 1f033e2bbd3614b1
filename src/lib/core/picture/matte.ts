import { hexOf, type Hex } from '../colour/parse';
import { toOklab, type Oklab } from '../colour/space';
import { scaling } from '../geom/affine';
import { clamp } from '../num/tolerance';
import { canvasOf, eachCovered } from '../raster/brush';
import { labOf, type StraightPicture } from '../raster/recolour';
import { CUT_CHANNELS, FRESH_CUT, type CutChannel, type CutOut, type CutStroke } from '../recipe/cut-out';
import { cleanEdges, edgePixels, filled, moved, piecesAt, softened, type Matte } from './matte-edges';

/** ΔEOK from which on a colour is as far away as can be: half of what lies between black and white. */
const FAR = 0.5;

/** One channel of a picture, 0 to 255 a pixel. */
export function channelOf({ width, height, data }: StraightPicture, channel: CutChannel, colour: Hex): Matte {
  const out = new Uint8Array(width * height);
  const offset = ['red', 'green', 'blue'].indexOf(channel);
  if (offset >= 0) {
    for (let pixel = 0; pixel < out.length; pixel += 1) out[pixel] = data[pixel * 4 + offset]!;
    return out;
  }
  const centre = channel === 'colour' ? toOklab(colour) : { l: 0, a: 0, b: 0 };
  const lab: Oklab = { l: 0, a: 0, b: 0 };
  for (let pixel = 0; pixel < out.length; pixel += 1) {
    labOf(data, pixel * 4, lab);
    const value =
      channel === 'light' ? lab.l : Math.hypot(lab.l - centre.l, lab.a - centre.a, lab.b - centre.b) / FAR;
    out[pixel] = Math.round(255 * clamp(value, 0, 1));
  }
  return out;
}

/** A threshold, how well it parts values, and the means of the two classes. */
export type Parting = { threshold: number; share: number; low: number; high: number };

/**
 * The threshold that parts values best, and how well: the greatest variance between the two classes over the variance of
 * all (Otsu 1979, "A threshold selection method from gray-level histograms"), 0 to 1. Values up to it are the lower class;
 * of those that part equally well it is the middle one.
 */
export function partsBest(values: Matte): Parting {
  const counts = new Float64Array(256);
  for (const value of values) counts[value]! += 1;
  const total = values.length;
  let [sum, squares] = [0, 0];
  counts.forEach((count, value) => {
    sum += count * value;
    squares += count * value * value;
  });
  const variance = squares / total - (sum / total) ** 2;
  let [below, belowSum] = [0, 0];
  let [threshold, last, most] = [127, 127, 0];
  let [low, high] = [0, 255];
  for (let value = 0; value < 255; value += 1) {
    below += counts[value]!;
    belowSum += counts[value]! * value;
    const above = total - below;
    if (below === 0 || above === 0) continue;
    const between = (below / total) * (above / total) * (belowSum / below - (sum - belowSum) / above) ** 2;
    // Where no value lies between two classes every threshold between them parts as well.
    if (between > most) {
      [threshold, last, most] = [value, value, between];
      [low, high] = [belowSum / below, (sum - belowSum) / above];
    } else if (between === most && last === value - 1) last = value;
  }
  threshold = (threshold + last) >> 1;
  return { threshold, share: variance > 0 ? most / variance : 0, low, high };
}

/** A channel of a picture, and how well it parts subject and background. */
export type PartingChannel = Parting & { channel: CutChannel; values: Matte };

/** Every channel of a picture; `colour` is what the last one is the distance from, by itself what lies along the edges. */
export const channelsOf = (picture: StraightPicture, colour: Hex): PartingChannel[] =>
  CUT_CHANNELS.map((channel) => {
    const values = channelOf(picture, channel, colour);
    return { channel, values, ...partsBest(values) };
  });

/** How far from the threshold levels are put at most at first; nearer where the middles of both classes are near it. */
const REACH = 24;
/** Of the way from the threshold to the middle of a class. */
const TOWARDS = 0.6;
/** Channels whose shares differ by less part as well. */
const ALIKE = 0.01;

/** The channel that parts best; of those that part alike the one whose classes are furthest from each other. */
export const bestOf = <T extends Omit<Parting, 'threshold'>>(channels: readonly T[]): T => {
  const most = Math.max(...channels.map(({ share }) => share));
  return channels
    .filter(({ share }) => share >= most - ALIKE)
    .reduce((best, one) => (one.high - one.low > best.high - best.low ? one : best));
};

/** A cut-out that a picture suggests: by the channel that parts it best, levels about its threshold, what touches the edges left out. */
export function suggestCut(
  picture: StraightPicture,
  channels: readonly PartingChannel[],
  colour: Hex,
): CutOut {
  const best = bestOf(channels);
  const { channel, threshold, values, low, high } = best;
  const edge = [...edgePixels(picture)];
  const above = edge.filter((pixel) => values[pixel]! > threshold).length;
  return {
    ...FRESH_CUT,
    channel,
    colour,
    inverted: above * 2 > edge.length,
    black: clamp(Math.round(threshold - Math.min(REACH, (threshold - low) * TOWARDS)), 0, 254),
    white: clamp(Math.round(threshold + Math.max(1, Math.min(REACH, (high - threshold) * TOWARDS))), 1, 255),
  };
}

/** The middle colour of a picture's edges, channel by channel: what lies behind a subject in its middle. */
export function edgeColour(picture: StraightPicture): Hex {
  const pixels = [...edgePixels(picture)];
  const middle = [0, 1, 2].map((channel) => {
    const values = pixels
      .map((pixel) => picture.data[pixel * 4 + channel]!)
      .sort((one, other) => one - other);
    return values[values.length >> 1] ?? 255;
  });
  return hexOf(middle as [number, number, number]);
}

/**
 * How much of each pixel a cut-out keeps. `scale` px of the picture at hand are one of its own; `channel` are the values of
 * its channel, where they are known already.
 */
export function matteOf(
  picture: StraightPicture,
  cut: CutOut,
  scale = 1,
  channel: Matte = channelOf(picture, cut.channel, cut.colour),
): Matte {
  const { data } = picture;
  const values = channel.slice();
  const curve = Uint8Array.from({ length: 256 }, (_, value) => {
    const share = clamp((value - cut.black) / Math.max(1, cut.white - cut.black), 0, 1) ** (1 / cut.middle);
    return Math.round(255 * (cut.inverted ? 1 - share : share));
  });
  for (let pixel = 0; pixel < values.length; pixel += 1)
    values[pixel] = Math.round((curve[values[pixel]!]! * data[pixel * 4 + 3]!) / 255);
  paintOn(values, picture, cut.strokes ?? [], scale);
  const whole = cut.holes ? filled(values, picture) : values;
  const places = cut.only.map(({ x, y }) => ({ x: x * scale, y: y * scale }));
  const kept = places.length > 0 ? piecesAt(whole, picture, places) : whole;
  const shifted = moved(kept, picture, Math.round(cut.shift * scale));
  return softened(shifted, picture, Math.round((cut.feather * scale) / 2));
}

/** Lays strokes on a matte: `scale` px of it are one that they are painted in. */
function paintOn(
  matte: Matte,
  { width, height }: StraightPicture,
  strokes: readonly CutStroke[],
  scale: number,
): void {
  const canvas = canvasOf(scaling(1 / scale), width, height)!;
  for (const stroke of strokes) {
    const gives = stroke.mode === 'restore';
    eachCovered(stroke, canvas, (pixel, cover) => {
      const value = matte[pixel]!;
      const pushed = gives ? Math.min(255, 2 * value) : Math.max(0, 2 * value - 255);
      const to = stroke.edges ? pushed : gives ? 255 : 0;
      matte[pixel] = Math.round(value + (to - value) * cover);
    });
  }
}

/** A picture cut out: straight alpha, and the box of what is left of it; `null` where nothing is. */
export function cutOut(
  picture: StraightPicture,
  cut: CutOut,
  scale = 1,
  channel?: Matte,
): { picture: StraightPicture; box: { x: number; y: number; width: number; height: number } } | null {
  const { width, height } = picture;
  const matte = matteOf(picture, cut, scale, channel);
  const data = picture.data.slice();
  for (let pixel = 0; pixel < matte.length; pixel += 1) data[pixel * 4 + 3] = matte[pixel]!;
  if (cut.clean) cleanEdges(data, matte, picture);
  let [left, top, right, bottom] = [width, height, -1, -1];
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1) {
      if (matte[y * width + x] === 0) continue;
      if (x < left) left = x;
      if (x > right) right = x;
      if (y < top) top = y;
      bottom = y;
    }
  if (right < 0) return null;
  const box = { x: left, y: top, width: right - left + 1, height: bottom - top + 1 };
  return { picture: { width, height, data }, box };
}

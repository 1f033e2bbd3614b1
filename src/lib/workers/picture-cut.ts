import type { PictureWork, Pixels } from '../contract/picture-work';
import type { AtHand } from '../core/picture/make';
import { channelOf, channelsOf, cutOut, edgeColour, matteOf, suggestCut } from '../core/picture/matte';
import { piecesOf } from '../core/picture/matte-edges';
import { resample } from '../core/raster/resample';
import type { CutOut } from '../core/recipe/cut-out';
import { pixelsOf } from './pixels';

type Ask<K extends keyof PictureWork> = PictureWork[K]['ask'];
type Reply<K extends keyof PictureWork> = PictureWork[K]['reply'];

/** How much is seen of pieces that are not among those kept. */
const PALE = 0.22;

/** What was read of the picture at hand: as long as only levels change, that of before. */
let held: { of: AtHand; key: string; picture: Pixels; values: Uint8Array } | null = null;

function readBy(of: AtHand, { channel, colour }: CutOut): { picture: Pixels; values: Uint8Array } {
  const key = `${channel} ${channel === 'colour' ? colour : ''}`;
  if (held?.of === of && held.key === key) return held;
  const picture = held?.of === of ? held.picture : pixelsOf(of.picture);
  held = { of, key, picture, values: channelOf(picture, channel, colour) };
  return held;
}

/** How a subject would be cut out, and each channel as it parts the picture. */
export function channelsSeen(of: AtHand, { side, colour }: Ask<'channels'>): Reply<'channels'> {
  const picture = pixelsOf(of.picture);
  const behind = colour ?? edgeColour(picture);
  const channels = channelsOf(picture, behind);
  const fit = Math.min(1, side / Math.max(picture.width, picture.height));
  const small = (length: number): number => Math.max(1, Math.round(length * fit));
  const [width, height] = [small(picture.width), small(picture.height)];
  return {
    suggested: suggestCut(picture, channels, behind),
    channels: channels.map(({ channel, share, low, high, values }) => {
      const grey = greyPixels(values, picture);
      const raster = { ...grey, data: new Uint8Array(grey.data.buffer) };
      return { channel, share, low, high, picture: pixelsOf(resample(raster, width, height)) };
    }),
  };
}

/** The picture with a subject cut out, what is not kept of it pale; or the matte alone. */
export function cutSeen(of: AtHand, { by, matte }: Ask<'cut'>): Reply<'cut'> {
  const { scale } = of;
  const { picture, values } = readBy(of, by);
  const histogram = new Array<number>(64).fill(0);
  for (let pixel = 0; pixel < values.length; pixel += 1) histogram[values[pixel]! >> 2]! += 1;
  if (matte) return { ...greyPixels(matteOf(picture, by, scale, values), picture), histogram };
  const { width, height } = picture;
  const made = cutOut(picture, by, scale, values);
  const data = made ? clamped(made.picture.data) : new Uint8ClampedArray(picture.data);
  if (!made) for (let at = 3; at < data.length; at += 4) data[at] = 0;
  if (by.only.length > 0) {
    const all = matteOf(picture, { ...by, only: [] }, scale, values);
    all.forEach((value, pixel) => {
      data[pixel * 4 + 3] = Math.max(data[pixel * 4 + 3]!, Math.round(value * PALE));
    });
  }
  return { width, height, data, histogram };
}

/** So many pieces are offered by name. */
const PIECES = 9;

/** The largest pieces of a cut-out, in px of the picture itself. */
export function piecesSeen(of: AtHand, by: CutOut): Reply<'pieces'> {
  const { picture, values } = readBy(of, by);
  const matte = matteOf(picture, { ...by, only: [], shift: 0, feather: 0 }, of.scale, values);
  const places = by.only.map(({ x, y }) => ({ x: x * of.scale, y: y * of.scale }));
  return piecesOf(matte, picture, PIECES, places).map(({ x, y, share, holds }) => ({
    share,
    holds: holds.map((index) => by.only[index]!),
    x: Math.round((x + 0.5) / of.scale),
    y: Math.round((y + 0.5) / of.scale),
  }));
}

/** The same bytes as a canvas wants them. */
const clamped = ({ buffer }: Uint8Array | Uint8ClampedArray): Uint8ClampedArray<ArrayBuffer> =>
  new Uint8ClampedArray(buffer as ArrayBuffer);

/** One value a pixel as opaque greys. */
function greyPixels(values: Uint8Array, { width, height }: Pixels): Pixels {
  const data = new Uint8ClampedArray(values.length * 4);
  values.forEach((value, pixel) => {
    data[pixel * 4] = data[pixel * 4 + 1] = data[pixel * 4 + 2] = value;
    data[pixel * 4 + 3] = 255;
  });
  return { width, height, data };
}

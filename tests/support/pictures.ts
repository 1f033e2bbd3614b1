import sharp from 'sharp';
import type { ImportedMotif } from '../../src/lib/contract/data';
import { at } from './browser';

type Colour = (x: number, y: number) => number[];

/** A PNG whose pixels (red, green, blue, alpha) a function gives. */
export async function pngOf(width: number, height: number, colour: Colour): Promise<Buffer> {
  const pixels = Array.from({ length: width * height }, (_, index) =>
    colour(index % width, Math.floor(index / width)),
  );
  const raw = Buffer.from(pixels.flat().map((value) => Math.max(0, Math.min(255, Math.round(value)))));
  return sharp(raw, { raw: { width, height, channels: 4 } })
    .png()
    .toBuffer();
}

/** A made-up photo: soft light from one corner, with a darker disc in it. */
export const PHOTO: Colour = (x, y) => {
  const disc = Math.hypot(x - 100, y - 70) < 40 ? 0.55 : 1;
  return [(x + 40) * disc, y * 1.6 * disc, (220 - x) * disc, 255];
};

/** A disc on nothing, as a subject that was cut out. */
export const CUT_OUT: Colour = (x, y) => [200, 60, 40, Math.hypot(x - 45, y - 45) < 40 ? 255 : 0];

/** Brings such a picture in over the API. */
export async function pictureAsset(
  width: number,
  height: number,
  colour: Colour,
): Promise<{ asset: string; width: number; height: number }> {
  const answer = await fetch(at('/api/v1/motifs/pictures'), {
    method: 'POST',
    headers: { 'content-type': 'image/png', 'x-file-name': 'photo.png' },
    body: new Uint8Array(await pngOf(width, height, colour)),
  });
  const { asset } = (await answer.json()) as ImportedMotif;
  return { asset, width, height };
}

/** The share of pixels of which a channel differs by more than `more`. */
export function differing(one: { data: Uint8Array }, other: { data: Uint8Array }, more: number): number {
  let count = 0;
  for (let from = 0; from < one.data.length; from += 4)
    if ([0, 1, 2].some((channel) => Math.abs(one.data[from + channel]! - other.data[from + channel]!) > more))
      count += 1;
  return (count * 4) / one.data.length;
}

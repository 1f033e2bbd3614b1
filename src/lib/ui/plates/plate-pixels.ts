import { layInk, lightLeft } from '$lib/core/colour/inks';
import type { PlatePicture } from '$lib/contract/data';

/** A plate with its pixels: 255 is full ink. */
export type ShownPlate = Omit<PlatePicture, 'picture'> & { ink: Uint8Array };

export const bytesOf = (base64: string): Uint8Array<ArrayBuffer> =>
  Uint8Array.from(atob(base64), (one) => one.charCodeAt(0));

/** A PNG in Base64 as a picture. */
export const pictureOf = (base64: string): Promise<ImageBitmap> =>
  createImageBitmap(new Blob([bytesOf(base64)], { type: 'image/png' }), {
    colorSpaceConversion: 'none',
    premultiplyAlpha: 'none',
  });

/** A film in Base64 as coverage: 255 where it is black. */
export async function coverageOf(base64: string): Promise<Uint8Array> {
  const picture = await pictureOf(base64);
  const { width, height } = picture;
  const context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })!;
  context.drawImage(picture, 0, 0);
  const { data } = context.getImageData(0, 0, width, height);
  const ink = new Uint8Array(width * height);
  for (let at = 0; at < ink.length; at += 1) ink[at] = 255 - data[4 * at]!;
  return ink;
}

const FILM = [{ tint: 1, look: '#000000' }];

/** Some plates laid on each other as px: one alone is black as a film is, of several each takes its own light away. */
export function plateImage(
  plates: readonly ShownPlate[],
  { width, height }: { width: number; height: number },
): ImageData {
  const image = new ImageData(width, height);
  image.data.fill(255);
  for (const { ink, tints } of plates)
    layInk(image.data, 4, ink, lightLeft({ tints: plates.length === 1 ? FILM : tints }));
  return image;
}

/** How much ink lies at each place in all, % of one; and where most of it lies, px. */
export function totalInk(
  plates: readonly ShownPlate[],
  width: number,
): { total: Uint16Array; most: number; at: { x: number; y: number } } {
  const total = new Uint16Array(plates[0]?.ink.length ?? 0);
  let [most, place] = [0, 0];
  for (let at = 0; at < total.length; at += 1) {
    let sum = 0;
    for (const { ink } of plates) sum += ink[at]!;
    total[at] = Math.round((sum / 255) * 100);
    if (total[at]! > most) [most, place] = [total[at]!, at];
  }
  return { total, most, at: { x: place % width, y: Math.floor(place / width) } };
}

/** Places as px of one colour. */
export function markImage(
  marked: (at: number) => boolean,
  { width, height }: { width: number; height: number },
  colour: readonly [number, number, number],
): ImageData {
  const image = new ImageData(width, height);
  for (let at = 0; at < width * height; at += 1) if (marked(at)) image.data.set([...colour, 210], 4 * at);
  return image;
}

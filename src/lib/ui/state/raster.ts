import type { Raster } from '$lib/core/raster/composite';
import { embedPictures, pictureAddress, picturesIn, type ShownPicture } from '$lib/core/svg/paint';

/** Pictures as data URLs by address, fetched once a page. */
const fetched = new Map<string, Promise<string | null>>();

/** An SVG text drawn to pixels by the browser, its pictures included; straight alpha. */
export async function rasterOf(svg: string, width: number, height: number): Promise<Raster> {
  const image = await imageOf(svg);
  const canvas = document.createElement('canvas');
  canvas.width = width;
  canvas.height = height;
  const context = canvas.getContext('2d', { willReadFrequently: true });
  if (!context) throw new Error('This browser gives no canvas to draw on.');
  context.drawImage(image, 0, 0, width, height);
  const { data } = context.getImageData(0, 0, width, height);
  return { width, height, data: new Uint8Array(data.buffer) };
}

/** An SVG text as an image that stands alone. */
export async function imageOf(svg: string): Promise<HTMLImageElement> {
  const urls = new Map<string, string | null>();
  await Promise.all(
    picturesIn(svg).map(async (shown) => urls.set(pictureAddress(shown), await pictureUrl(shown))),
  );
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(embedPictures(svg, (shown) => urls.get(pictureAddress(shown)) ?? null))}`;
  await image.decode();
  return image;
}

/** A picture among the assets as a data URL; fetched once a page. */
export function pictureUrl(shown: ShownPicture): Promise<string | null> {
  const address = pictureAddress(shown);
  const held = fetched.get(address);
  if (held) return held;
  const fresh = fetch(address).then(async (answer) => {
    if (!answer.ok) return null;
    const blob = await answer.blob();
    return new Promise<string>((resolve, reject) => {
      const reader = new FileReader();
      reader.onload = () => resolve(String(reader.result));
      reader.onerror = () => reject(reader.error ?? new Error('The picture could not be read.'));
      reader.readAsDataURL(blob);
    });
  });
  fetched.set(address, fresh);
  return fresh;
}

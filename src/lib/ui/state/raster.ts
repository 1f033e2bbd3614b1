import type { Raster } from '$lib/core/raster/composite';
import { embedPictures, picturesIn } from '$lib/core/svg/paint';

/** Pictures as data URLs by asset, fetched once a page. */
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
  await Promise.all(picturesIn(svg).map(async (asset) => urls.set(asset, await pictureUrl(asset))));
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(embedPictures(svg, (asset) => urls.get(asset) ?? null))}`;
  await image.decode();
  return image;
}

/** A picture among the assets as a data URL; fetched once a page. */
export function pictureUrl(asset: string): Promise<string | null> {
  const held = fetched.get(asset);
  if (held) return held;
  const fresh = fetch(`/api/v1/motifs/${asset}`).then(async (answer) => {
    if (!answer.ok) return null;
    const blob = await answer.blob();
    return new Promise<string>((resolve, reject) => {
      const reader = new FileReader();
      reader.onload = () => resolve(String(reader.result));
      reader.onerror = () => reject(reader.error ?? new Error('The picture could not be read.'));
      reader.readAsDataURL(blob);
    });
  });
  fetched.set(asset, fresh);
  return fresh;
}

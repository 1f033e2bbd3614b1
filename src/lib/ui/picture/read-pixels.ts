import type { Pixels } from '$lib/contract/picture-work';
import { pictureAddress } from '$lib/core/svg/paint';

/** Fetches a picture and reads its pixels, at most `most` px a side; `scale` px of them are one of its own. Throws where it is gone. */
export async function readPixels(asset: string, most: number): Promise<Pixels & { scale: number }> {
  const file = await fetch(pictureAddress({ asset, look: null }));
  if (!file.ok) throw new Error('gone');
  const bitmap = await createImageBitmap(await file.blob());
  const fit = Math.min(1, most / Math.max(bitmap.width, bitmap.height));
  const width = Math.max(1, Math.round(bitmap.width * fit));
  const height = Math.max(1, Math.round(bitmap.height * fit));
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  context.imageSmoothingQuality = 'high';
  context.drawImage(bitmap, 0, 0, width, height);
  const scale = width / bitmap.width;
  bitmap.close();
  return { width, height, data: context.getImageData(0, 0, width, height).data, scale };
}

import { createWriteStream } from 'node:fs';
import { once } from 'node:events';
import { finished } from 'node:stream/promises';
import { done, type Outcome } from '../../contract/failure';
import { pixelSize } from '../../core/num/length';
import type { DisplayList } from '../../core/draw/list';
import { renderPng } from '../render/png';
import { spaceFailure } from '../render/space';
import type { Tools } from './tools';

/** Draws a layout as a PNG file. A disk that is full is a failure with a sentence. */
export async function writePng(
  { pool, pictures }: Tools,
  scene: DisplayList,
  {
    ppi,
    path,
    progress,
    signal,
  }: { ppi: number; path: string; progress: (share: number) => void; signal?: AbortSignal },
): Promise<Outcome<{ bytes: number }>> {
  const file = createWriteStream(path);
  let broken: Error | null = null;
  file.on('error', (error) => (broken = error));
  let bytes = 0;
  try {
    await renderPng(scene, pool, {
      size: { ...pixelSize(scene, ppi), ppi },
      picture: await pictures.forScene(scene),
      pixels: pictures.pixels,
      progress,
      ...(signal ? { signal } : {}),
      write: async (part) => {
        if (broken) throw broken;
        bytes += part.length;
        if (!file.write(part)) await once(file, 'drain');
      },
    });
    file.end();
    await finished(file);
    return done({ bytes });
  } catch (error) {
    file.destroy();
    const failure = spaceFailure(broken ?? error, 'The picture');
    if (failure) return failure;
    throw error;
  }
}

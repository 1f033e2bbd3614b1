import { createHash } from 'node:crypto';
import type { FileAsset } from '../../contract/taking';
import { sizedPicture } from '../../core/svg/import';
import type { DrawingElement } from '../../core/recipe/recipe';
import { readPicture } from '../render/picture';

export type Settled = { elements: DrawingElement[]; assets: FileAsset[]; notes: string[] };

/**
 * Elements whose pictures came inside a file (named `pending:0` …, `pictures` holds them as data URLs), with the
 * pictures made ready as assets. Those that cannot be read are left out and named.
 */
export async function settlePictures(
  elements: readonly DrawingElement[],
  pictures: readonly string[],
  fileName: string,
): Promise<Settled> {
  const settled: Settled = { elements: [], assets: [], notes: [] };
  for (const element of elements) {
    const pending = /^pending:(\d+)$/.exec(element.picture?.asset ?? '');
    if (!pending) {
      settled.elements.push(element);
      continue;
    }
    const ready = await readPicture(bytesOf(pictures[Number(pending[1])] ?? ''), `a picture in ${fileName}`);
    if (!ready.ok) {
      settled.notes.push(ready.failure.message);
      continue;
    }
    const { bytes, mediaType, width, height, notes } = ready.value;
    const hash = createHash('sha256').update(bytes).digest('hex');
    settled.assets.push({ hash, mediaType, fileName, bytes });
    settled.elements.push(sizedPicture(element, hash, { width, height }));
    settled.notes.push(...notes);
  }
  return settled;
}

function bytesOf(dataUrl: string): Buffer {
  const [head = '', data = ''] = dataUrl.split(/,(.*)/s);
  if (head.endsWith(';base64')) return Buffer.from(data, 'base64');
  try {
    return Buffer.from(decodeURIComponent(data), 'latin1');
  } catch {
    return Buffer.alloc(0);
  }
}

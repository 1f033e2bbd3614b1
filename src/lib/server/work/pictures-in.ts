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
  const read = new Map<number, ReturnType<typeof readPicture>>();
  /** A picture that is shown many times is read once. */
  const once = (index: number): ReturnType<typeof readPicture> => {
    const held = read.get(index) ?? readPicture(bytesOf(pictures[index] ?? ''), `a picture in ${fileName}`);
    read.set(index, held);
    return held;
  };
  const kept = new Set<string>();
  for (const element of elements) {
    const pending = /^pending:(\d+)$/.exec(element.picture?.asset ?? '');
    if (!pending) {
      settled.elements.push(element);
      continue;
    }
    const ready = await once(Number(pending[1]));
    if (!ready.ok) {
      if (!settled.notes.includes(ready.failure.message)) settled.notes.push(ready.failure.message);
      continue;
    }
    const { bytes, mediaType, width, height, notes } = ready.value;
    const hash = createHash('sha256').update(bytes).digest('hex');
    if (!kept.has(hash)) {
      kept.add(hash);
      settled.assets.push({ hash, mediaType, fileName, bytes });
      settled.notes.push(...notes);
    }
    settled.elements.push(sizedPicture(element, hash, { width, height }));
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

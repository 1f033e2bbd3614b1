import { done, fail } from '$lib/contract/failure';
import { importSvg, sizedPicture } from '$lib/core/svg/import';
import { LIMITS } from '$lib/core/recipe/limits';
import type { DrawingElement } from '$lib/core/recipe/recipe';
import { api } from '$lib/server/app/http';
import type { Db } from '$lib/server/db/open';
import { readPicture } from '$lib/server/render/picture';
import { setText } from '$lib/server/render/text';
import { storeAsset } from '$lib/server/repo/assets';
import { newId } from '$lib/server/repo/context';

export const POST = api('importMotif', async ({ app, body }) => {
  const fileName: string = body.fileName;
  const bytes = Buffer.from(body.svg, 'utf8');
  if (bytes.length > LIMITS.svgBytes)
    return fail(
      'too_large',
      `“${fileName}” has ${(bytes.length / 1e6).toFixed(1)} MB; an SVG file may have at most ${LIMITS.svgBytes / 1e6} MB.`,
      'svg',
    );
  const read = importSvg(body.svg, newId, setText);
  if (!read.ok) return fail('unsupported', `“${fileName}”: ${read.message}`, 'svg');
  const { elements, notes } = await withPictures(app.db, read.content.elements, read.pictures, fileName);
  if (elements.length === 0)
    return fail('unsupported', `“${fileName}”: none of its pictures can be read. ${notes.join(' ')}`, 'svg');
  const asset = storeAsset(app.db, { bytes, mediaType: 'image/svg+xml', fileName });
  const name = read.title || fileName.replace(/\.svg$/i, '').slice(0, LIMITS.nameLength) || 'Motif';
  return done({
    asset,
    name,
    content: { ...read.content, asset, elements },
    slots: read.slots,
    notes: [...read.notes, ...notes],
  });
});

/** Elements with the pictures that the file held inside kept as assets; those that cannot be read are left out. */
async function withPictures(
  db: Db,
  elements: readonly DrawingElement[],
  pictures: readonly string[],
  fileName: string,
): Promise<{ elements: DrawingElement[]; notes: string[] }> {
  const kept: DrawingElement[] = [];
  const notes: string[] = [];
  for (const element of elements) {
    const pending = /^pending:(\d+)$/.exec(element.picture?.asset ?? '');
    if (!pending) {
      kept.push(element);
      continue;
    }
    const [head = '', data = ''] = (pictures[Number(pending[1])] ?? '').split(/,(.*)/s);
    const bytes = head.endsWith(';base64')
      ? Buffer.from(data, 'base64')
      : Buffer.from(decodeURIComponent(data), 'latin1');
    const ready = await readPicture(bytes, `a picture in ${fileName}`);
    if (!ready.ok) {
      notes.push(ready.failure.message);
      continue;
    }
    const { mediaType, width, height } = ready.value;
    const asset = storeAsset(db, { bytes: ready.value.bytes, mediaType, fileName });
    kept.push(sizedPicture(element, asset, { width, height }));
    notes.push(...ready.value.notes);
  }
  return { elements: kept, notes };
}

import { done, fail } from '$lib/contract/failure';
import { importSvg } from '$lib/core/svg/import';
import { LIMITS } from '$lib/core/recipe/limits';
import { api } from '$lib/server/app/http';
import { settlePictures } from '$lib/server/app/pictures-in';
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
  const { elements, assets, notes } = await settlePictures(read.content.elements, read.pictures, fileName);
  for (const picture of assets) storeAsset(app.db, { ...picture, bytes: Buffer.from(picture.bytes) });
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

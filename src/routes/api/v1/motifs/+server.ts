import { fail } from '$lib/contract/failure';
import { LIMITS } from '$lib/core/recipe/limits';
import { api } from '$lib/server/app/http';
import { storeAsset } from '$lib/server/repo/assets';

export const POST = api('importMotif', async ({ app, db, body, asking }) => {
  const fileName: string = body.fileName;
  const bytes = Buffer.from(body.svg, 'utf8');
  if (bytes.length > LIMITS.svgBytes)
    return fail(
      'too_large',
      `“${fileName}” has ${(bytes.length / 1e6).toFixed(1)} MB; an SVG file may have at most ${LIMITS.svgBytes / 1e6} MB.`,
      'svg',
    );
  const read = await app.processes.run('readMotif', { fileName, svg: body.svg }, asking);
  if (!read.ok) return read;
  const { motif, pictures } = read.value;
  const asset = db.transaction(() => {
    for (const picture of pictures) storeAsset(db, { ...picture, bytes: Buffer.from(picture.bytes) });
    return storeAsset(db, { bytes, mediaType: 'image/svg+xml', fileName });
  });
  return { ok: true, value: { ...motif, asset, content: { ...motif.content, asset } } };
});

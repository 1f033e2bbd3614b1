import { readLookKey } from '$lib/core/colour/look';
import { fail } from '$lib/contract/failure';
import { svgHeaders } from '$lib/server/app/files';
import { api } from '$lib/server/app/http';
import { readAsset } from '$lib/server/repo/assets';
import { stepsOf } from '$lib/server/repo/made';

export const GET = api('motifFile', async ({ app, db, params, query, asking }) => {
  const hash = params.hash;
  const look = query.look === undefined ? null : readLookKey(query.look);
  if (query.look !== undefined && look === null)
    return fail('invalid', `The look “${query.look}” cannot be read.`, 'look');
  let file = readAsset(db, hash);
  if (!file && stepsOf(db, hash)) {
    const made = await app.made.get(hash, asking);
    if (!made.ok) return made;
    file = { bytes: made.value.bytes, mediaType: 'image/png', fileName: 'made.png' };
  }
  if (!file) return fail('not_found', `There is no motif file “${hash}”.`, 'hash');
  const change = look ? { look } : query.side === undefined ? null : { side: Number(query.side) };
  if (change && file.mediaType !== 'image/svg+xml') {
    const changed = await app.changed.get(hash, change, asking);
    if (!changed.ok) return changed;
    return new Response(new Uint8Array(changed.value.bytes), {
      headers: { ...svgHeaders({ forever: true }), 'content-type': 'image/png' },
    });
  }
  return new Response(new Uint8Array(file.bytes), {
    headers: {
      ...svgHeaders({ fileName: file.fileName, forever: true }),
      'content-type': file.mediaType === 'image/svg+xml' ? 'image/svg+xml; charset=utf-8' : file.mediaType,
    },
  });
});

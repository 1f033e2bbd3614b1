import { fail } from '$lib/contract/failure';
import { svgHeaders } from '$lib/server/app/files';
import { api } from '$lib/server/app/http';
import { readAsset } from '$lib/server/repo/assets';

export const GET = api('motifFile', ({ app, params }) => {
  const file = readAsset(app.db, params.hash ?? '');
  if (!file) return fail('not_found', `There is no motif file “${params.hash}”.`, 'hash');
  return new Response(new Uint8Array(file.bytes), {
    headers: {
      ...svgHeaders({ fileName: file.fileName, forever: true }),
      'content-type': file.mediaType === 'image/svg+xml' ? 'image/svg+xml; charset=utf-8' : file.mediaType,
    },
  });
});

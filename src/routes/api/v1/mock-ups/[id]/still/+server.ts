import { readFile } from 'node:fs/promises';
import { fail } from '$lib/contract/failure';
import { LIMITS } from '$lib/core/recipe/limits';
import { api } from '$lib/server/app/http';
import { getStill, keepStill } from '$lib/server/repo/mockups';

/** A day; the address names the picture. */
const KEPT = 'private, max-age=86400, immutable';

export const POST = api('keepStill', async ({ app, params, file, asking }) => {
  const read = await app.processes.run('readPicture', { path: file.path, fileName: file.name }, asking);
  if (!read.ok) return read;
  const { ready, sourceType, width, height } = read.value;
  if (Math.max(width, height) > LIMITS.stillSide)
    return fail('too_large', `The picture of a mock-up has at most ${LIMITS.stillSide} px a side.`);
  const bytes = ready ? Buffer.from(ready.bytes) : await readFile(file.path);
  const mediaType = ready?.mediaType ?? sourceType;
  return keepStill(app.db, params.id ?? '', { bytes, mediaType, width, height });
});

export const GET = api('getStill', ({ app, params, query }) => {
  const still = getStill(app.db, params.id ?? '');
  if (!still.ok) return still;
  const { bytes, mediaType } = still.value;
  const headers = { 'content-type': mediaType, 'cache-control': query.made ? KEPT : 'no-cache' };
  return new Response(new Uint8Array(bytes), { headers });
});

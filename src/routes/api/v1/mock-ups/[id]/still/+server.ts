import { api } from '$lib/server/app/http';
import { readStill } from '$lib/server/app/stills';
import { getStill, keepStill } from '$lib/server/repo/mockups';

/** A day; the address names the picture. */
const KEPT = 'private, max-age=86400, immutable';

export const POST = api('keepStill', async (call) => {
  const still = await readStill(call);
  return still.ok ? keepStill(call.db, call.params.id, still.value) : still;
});

export const GET = api('getStill', ({ db, params, query }) => {
  const still = getStill(db, params.id);
  if (!still.ok) return still;
  const { bytes, mediaType } = still.value;
  const headers = { 'content-type': mediaType, 'cache-control': query.made ? KEPT : 'no-cache' };
  return new Response(new Uint8Array(bytes), { headers });
});

import { api } from '$lib/server/app/http';
import { fontBytes, noFont } from '$lib/server/repo/fonts';

/** A font’s id is made of its bytes: they may be kept for ever. */
export const GET = api('fontFile', ({ db, params }) => {
  const bytes = fontBytes(db, params.id);
  if (!bytes) return noFont();
  return new Response(new Uint8Array(bytes), {
    headers: {
      'content-type': 'font/sfnt',
      'content-security-policy': "default-src 'none'; sandbox",
      'x-content-type-options': 'nosniff',
      'cache-control': 'private, max-age=31536000, immutable',
    },
  });
});

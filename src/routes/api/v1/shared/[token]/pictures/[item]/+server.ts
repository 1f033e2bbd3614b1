import { api } from '$lib/server/app/http';
import { sharedPicture } from '$lib/server/repo/shared-sheets';

export const GET = api('sharedPicture', ({ db, params }) => {
  const picture = sharedPicture(db, params.token, params.item);
  if (!picture.ok) return picture;
  const { bytes, mediaType } = picture.value;
  // It may be shown anew under the same address, and a link may end at any time.
  const headers = { 'content-type': mediaType, 'cache-control': 'private, no-cache' };
  return new Response(new Uint8Array(bytes), { headers });
});

import type { CutPicture } from '$lib/contract/data';
import { done } from '$lib/contract/failure';
import { api } from '$lib/server/app/http';
import { storeAsset } from '$lib/server/repo/assets';

export const POST = api('cutPicture', async ({ app, db, params, body, asking }) => {
  const made = await app.processes.run('cutOut', { store: app.store, hash: params.hash, by: body }, asking);
  if (!made.ok) return made;
  const { bytes, ...box } = made.value;
  const file = { bytes: Buffer.from(bytes), mediaType: 'image/png', fileName: 'cut-out.png' };
  return done<CutPicture>({ asset: storeAsset(db, file), ...box });
});

import { api } from '$lib/server/app/http';
import { readStill } from '$lib/server/app/stills';
import { keepSheetPicture } from '$lib/server/repo/client-sheets';

export const POST = api('keepSheetPicture', async (call) => {
  const still = await readStill(call);
  if (!still.ok) return still;
  const { bytes, mediaType } = still.value;
  return keepSheetPicture(call.db, call.params.id, call.params.item, { bytes, mediaType });
});

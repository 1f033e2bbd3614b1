import { done } from '$lib/contract/failure';
import { api } from '$lib/server/app/http';
import { keepStockPhotos } from '$lib/server/demo/photo-objects';
import { listPhotoObjects } from '$lib/server/repo/photo-objects';

export const POST = api('stockPhotoObjects', ({ app }) => {
  keepStockPhotos(app.db);
  return done(listPhotoObjects(app.db));
});

import { done } from '$lib/contract/failure';
import { api } from '$lib/server/app/http';
import { keepStockPhotos } from '$lib/server/demo/photo-objects';
import { listPhotoObjects } from '$lib/server/repo/photo-objects';

export const POST = api('stockPhotoObjects', ({ db }) => {
  keepStockPhotos(db);
  return done(listPhotoObjects(db));
});

import { api } from '$lib/server/app/http';
import { removePhotoObject } from '$lib/server/repo/photo-objects';

export const DELETE = api('removePhotoObject', ({ app, params }) =>
  removePhotoObject(app.db, params.id ?? ''),
);

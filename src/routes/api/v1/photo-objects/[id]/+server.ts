import { api } from '$lib/server/app/http';
import { removePhotoObject } from '$lib/server/repo/photo-objects';

export const DELETE = api('removePhotoObject', ({ db, params }) => removePhotoObject(db, params.id));

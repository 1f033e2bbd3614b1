import { done } from '$lib/contract/failure';
import { api } from '$lib/server/app/http';
import { keepPhotoObject, listPhotoObjects } from '$lib/server/repo/photo-objects';

export const GET = api('listPhotoObjects', ({ app }) => done(listPhotoObjects(app.db)));
export const POST = api('keepPhotoObject', ({ app, body }) => keepPhotoObject(app.db, body));

import { done } from '$lib/contract/failure';
import { api } from '$lib/server/app/http';
import { keepPhotoObject, listPhotoObjects } from '$lib/server/repo/photo-objects';

export const GET = api('listPhotoObjects', ({ db }) => done(listPhotoObjects(db)));
export const POST = api('keepPhotoObject', ({ db, body }) => keepPhotoObject(db, body));

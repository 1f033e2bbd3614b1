import { api } from '$lib/server/app/http';
import { createCollection } from '$lib/server/repo/collections';

export const POST = api('createCollection', ({ db, body }) => createCollection(db, body.name));

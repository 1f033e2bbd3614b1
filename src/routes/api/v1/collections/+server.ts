import { api } from '$lib/server/app/http';
import { createCollection } from '$lib/server/repo/collections';

export const POST = api('createCollection', ({ app, body }) => createCollection(app.db, body.name));

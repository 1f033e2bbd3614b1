import { api } from '$lib/server/app/http';
import { removeCollection, renameCollection } from '$lib/server/repo/collections';

export const PATCH = api('renameCollection', ({ app, params, body }) =>
  renameCollection(app.db, params.id ?? '', body.name),
);
export const DELETE = api('removeCollection', ({ app, params }) => removeCollection(app.db, params.id ?? ''));

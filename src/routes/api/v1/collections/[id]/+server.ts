import { api } from '$lib/server/app/http';
import { removeCollection, renameCollection } from '$lib/server/repo/collections';

export const PATCH = api('renameCollection', ({ db, params, body }) =>
  renameCollection(db, params.id, body.name),
);
export const DELETE = api('removeCollection', ({ db, params }) => removeCollection(db, params.id));

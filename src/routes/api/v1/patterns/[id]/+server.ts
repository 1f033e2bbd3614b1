import { api } from '$lib/server/app/http';
import { deletePattern, getPattern, patchPattern } from '$lib/server/repo/patterns';

export const GET = api('getPattern', ({ db, params }) => getPattern(db, params.id));
export const PATCH = api('patchPattern', ({ db, params, body }) =>
  patchPattern(db, params.id, body.base, body),
);
export const DELETE = api('deletePattern', ({ db, params, body }) => deletePattern(db, params.id, body.name));

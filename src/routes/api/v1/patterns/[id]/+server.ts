import { api } from '$lib/server/app/http';
import { deletePattern, getPattern, patchPattern } from '$lib/server/repo/patterns';

export const GET = api('getPattern', ({ app, params }) => getPattern(app.db, params.id ?? ''));
export const PATCH = api('patchPattern', ({ app, params, body }) =>
  patchPattern(app.db, params.id ?? '', body.base, body),
);
export const DELETE = api('deletePattern', ({ app, params, body }) =>
  deletePattern(app.db, params.id ?? '', body.name),
);

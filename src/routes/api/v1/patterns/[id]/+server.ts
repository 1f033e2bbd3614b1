import { api } from '$lib/server/app/http';
import { getPattern, patchPattern } from '$lib/server/repo/patterns';

export const GET = api('getPattern', ({ app, params }) => getPattern(app.db, params.id ?? ''));
export const PATCH = api('patchPattern', ({ app, params, body }) =>
  patchPattern(app.db, params.id ?? '', body.base, body),
);

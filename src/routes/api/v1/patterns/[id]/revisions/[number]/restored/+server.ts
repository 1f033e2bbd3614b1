import { api } from '$lib/server/app/http';
import { restoreRevision } from '$lib/server/repo/publishing';

export const POST = api('restoreRevision', ({ app, params, body }) =>
  restoreRevision(app.db, params.id ?? '', body.base, Number(params.number)),
);

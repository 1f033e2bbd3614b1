import { api } from '$lib/server/app/http';
import { restoreRevision } from '$lib/server/repo/publishing';

export const POST = api('restoreRevision', ({ db, params, body }) =>
  restoreRevision(db, params.id, body.base, Number(params.number)),
);

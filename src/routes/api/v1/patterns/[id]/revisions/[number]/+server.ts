import { api } from '$lib/server/app/http';
import { storedAt } from '$lib/server/repo/patterns';

export const GET = api('getRevision', ({ app, params }) =>
  storedAt(app.db, params.id ?? '', Number(params.number)),
);

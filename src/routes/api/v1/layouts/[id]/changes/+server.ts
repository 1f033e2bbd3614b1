import { api } from '$lib/server/app/http';
import { applyChanges } from '$lib/server/repo/layout-changes';

export const POST = api('changeLayout', ({ app, params, body }) =>
  applyChanges(app.db, params.id ?? '', body.base, body.changes),
);

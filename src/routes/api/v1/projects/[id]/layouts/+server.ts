import { api } from '$lib/server/app/http';
import { createLayout } from '$lib/server/repo/layouts';

export const POST = api('createLayout', ({ app, params, body }) =>
  createLayout(app.db, params.id ?? '', body),
);

import { api } from '$lib/server/app/http';
import { copyLayout } from '$lib/server/repo/layout-making';

export const POST = api('copyLayout', ({ app, params, body }) =>
  copyLayout(app.db, params.id ?? '', body.name),
);

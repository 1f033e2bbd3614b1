import { api } from '$lib/server/app/http';
import { makeLayout } from '$lib/server/repo/layout-making';

export const POST = api('createLayout', ({ app, params, body }) => makeLayout(app.db, params.id ?? '', body));

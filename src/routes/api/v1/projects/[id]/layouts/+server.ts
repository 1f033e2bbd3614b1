import { api } from '$lib/server/app/http';
import { makeLayout } from '$lib/server/repo/layout-making';

export const POST = api('createLayout', ({ db, params, body }) => makeLayout(db, params.id, body));

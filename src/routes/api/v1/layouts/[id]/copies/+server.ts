import { api } from '$lib/server/app/http';
import { copyLayout } from '$lib/server/repo/layout-making';

export const POST = api('copyLayout', ({ db, params, body }) => copyLayout(db, params.id, body.name));

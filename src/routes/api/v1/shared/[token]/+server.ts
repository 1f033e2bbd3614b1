import { api } from '$lib/server/app/http';
import { getShared } from '$lib/server/repo/shared-sheets';

export const GET = api('getShared', ({ app, params }) => getShared(app.db, params.token ?? ''));

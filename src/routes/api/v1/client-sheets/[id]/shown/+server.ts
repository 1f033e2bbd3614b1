import { api } from '$lib/server/app/http';
import { showSheet } from '$lib/server/repo/client-sheets';

export const PUT = api('showSheet', ({ app, params, body }) => showSheet(app.db, params.id ?? '', body));

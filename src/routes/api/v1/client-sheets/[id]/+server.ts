import { api } from '$lib/server/app/http';
import { getSheet, saveSheet } from '$lib/server/repo/client-sheets';

export const GET = api('getSheet', ({ app, params }) => getSheet(app.db, params.id ?? ''));
export const PUT = api('saveSheet', ({ app, params, body }) => saveSheet(app.db, params.id ?? '', body));

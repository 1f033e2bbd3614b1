import { done } from '$lib/contract/failure';
import { api } from '$lib/server/app/http';
import { createSheet, listSheets } from '$lib/server/repo/client-sheets';

export const GET = api('listSheets', ({ app, params }) => done(listSheets(app.db, params.id ?? '')));
export const POST = api('createSheet', ({ app, params, body }) => createSheet(app.db, params.id ?? '', body));

import { done } from '$lib/contract/failure';
import { api } from '$lib/server/app/http';
import { createSheet, listSheets } from '$lib/server/repo/client-sheets';

export const GET = api('listSheets', ({ db, params }) => done(listSheets(db, params.id)));
export const POST = api('createSheet', ({ db, params, body }) => createSheet(db, params.id, body));

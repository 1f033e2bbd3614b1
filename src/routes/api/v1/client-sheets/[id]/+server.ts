import { api } from '$lib/server/app/http';
import { getSheet, saveSheet } from '$lib/server/repo/client-sheets';

export const GET = api('getSheet', ({ db, params }) => getSheet(db, params.id));
export const PUT = api('saveSheet', ({ db, params, body }) => saveSheet(db, params.id, body));

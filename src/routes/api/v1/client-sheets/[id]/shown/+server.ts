import { api } from '$lib/server/app/http';
import { showSheet } from '$lib/server/repo/client-sheets';

export const PUT = api('showSheet', ({ db, params, body }) => showSheet(db, params.id, body));

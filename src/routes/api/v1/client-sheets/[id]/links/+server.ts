import { api } from '$lib/server/app/http';
import { makeLink } from '$lib/server/repo/shared-sheets';

export const POST = api('makeLink', ({ app, params, body }) => makeLink(app.db, params.id ?? '', body));

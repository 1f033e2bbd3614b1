import { api } from '$lib/server/app/http';
import { makeLink } from '$lib/server/repo/shared-sheets';

export const POST = api('makeLink', ({ db, params, body }) => makeLink(db, params.id, body));

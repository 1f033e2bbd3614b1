import { api } from '$lib/server/app/http';
import { endLink } from '$lib/server/repo/shared-sheets';

export const DELETE = api('endLink', ({ db, params }) => endLink(db, params.id, params.token));

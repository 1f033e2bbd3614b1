import { api } from '$lib/server/app/http';
import { keepAsNew } from '$lib/server/repo/publishing';

export const POST = api('keepAsNew', ({ app, params, body }) => keepAsNew(app.db, params.id ?? '', body));

import { api } from '$lib/server/app/http';
import { keepAsNew } from '$lib/server/repo/publishing';

export const POST = api('keepAsNew', ({ db, params, body }) => keepAsNew(db, params.id, body));

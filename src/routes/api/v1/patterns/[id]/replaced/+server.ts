import { api } from '$lib/server/app/http';
import { replaceEverywhere } from '$lib/server/repo/bulk';

export const POST = api('replaceUses', ({ db, params, body }) => replaceEverywhere(db, params.id, body));

import { api } from '$lib/server/app/http';
import { getShared } from '$lib/server/repo/shared-sheets';

export const GET = api('getShared', ({ db, params }) => getShared(db, params.token));

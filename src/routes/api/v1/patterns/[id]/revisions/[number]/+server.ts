import { api } from '$lib/server/app/http';
import { storedAt } from '$lib/server/repo/patterns';

export const GET = api('getRevision', ({ db, params }) => storedAt(db, params.id, Number(params.number)));

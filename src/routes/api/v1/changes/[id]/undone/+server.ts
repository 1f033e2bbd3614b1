import { api } from '$lib/server/app/http';
import { undoBulk } from '$lib/server/repo/bulk';

export const POST = api('undoBulk', ({ db, params }) => undoBulk(db, params.id));

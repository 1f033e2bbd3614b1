import { api } from '$lib/server/app/http';
import { listStates } from '$lib/server/repo/layout-states';

export const GET = api('listStates', ({ db, params }) => listStates(db, params.id));

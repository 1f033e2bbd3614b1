import { api } from '$lib/server/app/http';
import { setDemand } from '$lib/server/repo/approvals';

export const PUT = api('setDemand', ({ db, params, body }) => setDemand(db, params.id, body.demands));

import { api } from '$lib/server/app/http';
import { nameState, stateAt } from '$lib/server/repo/layout-states';

export const GET = api('getState', ({ db, params }) => stateAt(db, params.id, Number(params.version)));
export const PUT = api('nameState', ({ db, params, body }) =>
  nameState(db, params.id, Number(params.version), body.name),
);

import { api } from '$lib/server/app/http';
import { setDone } from '$lib/server/repo/comments';

export const PATCH = api('setDone', ({ db, person, params, body }) =>
  setDone(db, person, params.id, body.done),
);

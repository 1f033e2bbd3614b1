import { done } from '$lib/contract/failure';
import { api } from '$lib/server/app/http';
import { listActivity } from '$lib/server/repo/activity';

export const GET = api('listActivity', ({ db, person, query }) =>
  done(listActivity(db, person, query.before ?? null)),
);

import { api } from '$lib/server/app/http';
import { listActivity } from '$lib/server/repo/activity';

export const GET = api('listActivity', ({ db, person, query }) => listActivity(db, person, query));

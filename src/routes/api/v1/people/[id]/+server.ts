import { api } from '$lib/server/app/http';
import { changePerson } from '$lib/server/repo/people';

export const PATCH = api('changePerson', ({ db, params, body }) => changePerson(db, params.id, body));

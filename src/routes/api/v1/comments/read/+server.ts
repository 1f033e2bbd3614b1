import { api } from '$lib/server/app/http';
import { readComments } from '$lib/server/repo/comments';

export const PUT = api('readComments', ({ db, person, body }) => readComments(db, person, body));

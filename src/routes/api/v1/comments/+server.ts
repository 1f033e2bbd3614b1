import { api } from '$lib/server/app/http';
import { addComment, listComments } from '$lib/server/repo/comments';

export const GET = api('listComments', ({ db, person, query }) => listComments(db, person, query));
export const POST = api('addComment', ({ db, person, body }) => addComment(db, person, body));

import { api } from '$lib/server/app/http';
import { editPatterns, putBack } from '$lib/server/repo/bulk-edit';

export const POST = api('editPatterns', ({ db, body }) => editPatterns(db, body));
export const PUT = api('putBack', ({ db, body }) => putBack(db, body.patterns));

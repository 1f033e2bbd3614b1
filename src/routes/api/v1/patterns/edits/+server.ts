import { api } from '$lib/server/app/http';
import { editPatterns, putBack } from '$lib/server/repo/bulk-edit';

export const POST = api('editPatterns', ({ app, body }) => editPatterns(app.db, body));
export const PUT = api('putBack', ({ app, body }) => putBack(app.db, body.patterns));

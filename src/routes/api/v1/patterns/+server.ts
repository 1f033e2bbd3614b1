import { done } from '$lib/contract/failure';
import { api } from '$lib/server/app/http';
import { createPattern, listPatterns } from '$lib/server/repo/patterns';

export const GET = api('listPatterns', ({ app, query }) => done(listPatterns(app.db, query)));
export const POST = api('createPattern', ({ app, body }) => createPattern(app.db, body));

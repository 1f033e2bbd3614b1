import { done } from '$lib/contract/failure';
import { api } from '$lib/server/app/http';
import { listChanges } from '$lib/server/repo/bulk';

export const GET = api('listChanges', ({ app, query }) => done(listChanges(app.db, query.pattern)));

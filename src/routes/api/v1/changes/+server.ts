import { done } from '$lib/contract/failure';
import { api } from '$lib/server/app/http';
import { listChanges } from '$lib/server/repo/bulk';

export const GET = api('listChanges', ({ db, query }) => done(listChanges(db, query.pattern)));

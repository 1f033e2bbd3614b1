import { done } from '$lib/contract/failure';
import { api } from '$lib/server/app/http';
import { createMockup, listMockups } from '$lib/server/repo/mockups';

export const GET = api('listMockups', ({ db, params }) => done(listMockups(db, params.id)));
export const POST = api('createMockup', ({ db, params, body }) => createMockup(db, params.id, body));

import { done } from '$lib/contract/failure';
import { api } from '$lib/server/app/http';
import { createMockup, listMockups } from '$lib/server/repo/mockups';

export const GET = api('listMockups', ({ app, params }) => done(listMockups(app.db, params.id ?? '')));
export const POST = api('createMockup', ({ app, params, body }) =>
  createMockup(app.db, params.id ?? '', body),
);

import { api } from '$lib/server/app/http';
import { getMockup, saveMockup } from '$lib/server/repo/mockups';

export const GET = api('getMockup', ({ app, params }) => getMockup(app.db, params.id ?? ''));
export const PUT = api('saveMockup', ({ app, params, body }) => saveMockup(app.db, params.id ?? '', body));

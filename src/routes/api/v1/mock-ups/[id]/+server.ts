import { api } from '$lib/server/app/http';
import { getMockup, saveMockup } from '$lib/server/repo/mockups';

export const GET = api('getMockup', ({ db, params }) => getMockup(db, params.id));
export const PUT = api('saveMockup', ({ db, params, body }) => saveMockup(db, params.id, body));

import { api } from '$lib/server/app/http';
import { copyMockup } from '$lib/server/repo/mockups';

export const POST = api('copyMockup', ({ db, params, body }) => copyMockup(db, params.id, body.name));

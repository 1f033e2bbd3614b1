import { api } from '$lib/server/app/http';
import { copyMockup } from '$lib/server/repo/mockups';

export const POST = api('copyMockup', ({ app, params, body }) =>
  copyMockup(app.db, params.id ?? '', body.name),
);

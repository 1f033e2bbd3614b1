import { api } from '$lib/server/app/http';
import { setMockupArchived } from '$lib/server/repo/mockups';

export const PUT = api('archiveMockup', ({ app, params, body }) =>
  setMockupArchived(app.db, params.id ?? '', body.archived),
);

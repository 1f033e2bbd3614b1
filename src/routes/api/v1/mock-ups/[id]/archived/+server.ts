import { api } from '$lib/server/app/http';
import { setMockupArchived } from '$lib/server/repo/mockups';

export const PUT = api('archiveMockup', ({ db, params, body }) =>
  setMockupArchived(db, params.id, body.archived),
);

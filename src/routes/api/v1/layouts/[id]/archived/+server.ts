import { api } from '$lib/server/app/http';
import { setLayoutArchived } from '$lib/server/repo/layouts';

export const PUT = api('archiveLayout', ({ db, params, body }) =>
  setLayoutArchived(db, params.id, body.archived),
);

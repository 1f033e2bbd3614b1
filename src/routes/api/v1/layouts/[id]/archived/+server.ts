import { api } from '$lib/server/app/http';
import { setLayoutArchived } from '$lib/server/repo/layouts';

export const PUT = api('archiveLayout', ({ app, params, body }) =>
  setLayoutArchived(app.db, params.id ?? '', body.archived),
);

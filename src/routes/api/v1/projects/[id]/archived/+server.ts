import { api } from '$lib/server/app/http';
import { setProjectArchived } from '$lib/server/repo/projects';

export const PUT = api('archiveProject', ({ app, params, body }) =>
  setProjectArchived(app.db, params.id ?? '', body.archived),
);

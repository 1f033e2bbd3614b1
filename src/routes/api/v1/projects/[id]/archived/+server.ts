import { api } from '$lib/server/app/http';
import { setProjectArchived } from '$lib/server/repo/projects';

export const PUT = api('archiveProject', ({ db, params, body }) =>
  setProjectArchived(db, params.id, body.archived),
);

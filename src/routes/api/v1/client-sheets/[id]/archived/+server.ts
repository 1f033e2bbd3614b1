import { api } from '$lib/server/app/http';
import { setSheetArchived } from '$lib/server/repo/client-sheets';

export const PUT = api('archiveSheet', ({ db, params, body }) =>
  setSheetArchived(db, params.id, body.archived),
);

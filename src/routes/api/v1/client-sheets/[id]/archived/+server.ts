import { api } from '$lib/server/app/http';
import { setSheetArchived } from '$lib/server/repo/client-sheets';

export const PUT = api('archiveSheet', ({ app, params, body }) =>
  setSheetArchived(app.db, params.id ?? '', body.archived),
);

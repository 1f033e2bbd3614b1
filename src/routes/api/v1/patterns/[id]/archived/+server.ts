import { api } from '$lib/server/app/http';
import { setPatternArchived } from '$lib/server/repo/patterns';

export const PUT = api('archivePattern', ({ app, params, body }) =>
  setPatternArchived(app.db, params.id ?? '', body.archived),
);

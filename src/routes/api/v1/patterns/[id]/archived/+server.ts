import { api } from '$lib/server/app/http';
import { setPatternArchived } from '$lib/server/repo/patterns';

export const PUT = api('archivePattern', ({ db, params, body }) =>
  setPatternArchived(db, params.id, body.archived),
);

import { api } from '$lib/server/app/http';
import { saveDraft } from '$lib/server/repo/patterns';

export const PUT = api('saveDraft', ({ app, params, body }) =>
  saveDraft(app.db, params.id ?? '', body.base, body.recipe),
);

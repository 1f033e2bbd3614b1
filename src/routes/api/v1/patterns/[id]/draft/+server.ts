import { api } from '$lib/server/app/http';
import { saveDraft } from '$lib/server/repo/patterns';
import { dropDraft } from '$lib/server/repo/publishing';

export const PUT = api('saveDraft', ({ app, params, body }) =>
  saveDraft(app.db, params.id ?? '', body.base, body.recipe),
);

export const DELETE = api('dropDraft', ({ app, params, body }) =>
  dropDraft(app.db, params.id ?? '', body.base),
);

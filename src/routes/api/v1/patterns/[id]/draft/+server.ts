import { api } from '$lib/server/app/http';
import { saveDraft } from '$lib/server/repo/patterns';
import { dropDraft } from '$lib/server/repo/publishing';

export const PUT = api('saveDraft', ({ db, params, body }) =>
  saveDraft(db, params.id, body.base, body.recipe),
);

export const DELETE = api('dropDraft', ({ db, params, body }) => dropDraft(db, params.id, body.base));

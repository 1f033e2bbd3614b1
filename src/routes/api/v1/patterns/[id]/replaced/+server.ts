import { api } from '$lib/server/app/http';
import { replaceEverywhere } from '$lib/server/repo/bulk';

export const POST = api('replaceUses', ({ app, params, body }) =>
  replaceEverywhere(app.db, params.id ?? '', body),
);

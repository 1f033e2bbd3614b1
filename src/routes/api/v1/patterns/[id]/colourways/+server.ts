import { api } from '$lib/server/app/http';
import { saveColourways } from '$lib/server/repo/colourways';

export const PUT = api('saveColourways', ({ app, params, body }) =>
  saveColourways(app.db, params.id ?? '', body.base, body.colourways),
);

import { api } from '$lib/server/app/http';
import { saveColourways } from '$lib/server/repo/colourways';

export const PUT = api('saveColourways', ({ db, params, body }) =>
  saveColourways(db, params.id, body.base, body.colourways),
);

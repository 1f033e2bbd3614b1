import { api } from '$lib/server/app/http';
import { savePalette } from '$lib/server/repo/palettes';

export const PUT = api('savePalette', ({ app, params, body }) =>
  savePalette(app.db, params.id ?? '', body.base, body),
);

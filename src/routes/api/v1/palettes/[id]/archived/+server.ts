import { api } from '$lib/server/app/http';
import { setPaletteArchived } from '$lib/server/repo/palettes';

export const PUT = api('archivePalette', ({ app, params, body }) =>
  setPaletteArchived(app.db, params.id ?? '', body.archived),
);

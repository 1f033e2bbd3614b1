import { api } from '$lib/server/app/http';
import { setPaletteArchived } from '$lib/server/repo/palettes';

export const PUT = api('archivePalette', ({ db, params, body }) =>
  setPaletteArchived(db, params.id, body.archived),
);

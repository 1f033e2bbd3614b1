import { api } from '$lib/server/app/http';
import { savePalette } from '$lib/server/repo/palettes';

export const PUT = api('savePalette', ({ db, params, body }) => savePalette(db, params.id, body.base, body));

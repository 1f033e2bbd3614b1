import { api } from '$lib/server/app/http';
import { recolourLayouts } from '$lib/server/repo/bulk';

export const POST = api('recolour', ({ app, body }) => recolourLayouts(app.db, body));

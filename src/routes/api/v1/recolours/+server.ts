import { api } from '$lib/server/app/http';
import { recolourLayouts } from '$lib/server/repo/bulk';

export const POST = api('recolour', ({ db, body }) => recolourLayouts(db, body));

import { done } from '$lib/contract/failure';
import { api } from '$lib/server/app/http';
import { colourUses } from '$lib/server/repo/palettes';

export const GET = api('paletteUses', ({ app, params }) => done(colourUses(app.db, params.id ?? '')));

import { done } from '$lib/contract/failure';
import { api } from '$lib/server/app/http';
import { colourUses } from '$lib/server/repo/palettes';

export const GET = api('paletteUses', ({ db, params }) => done(colourUses(db, params.id)));

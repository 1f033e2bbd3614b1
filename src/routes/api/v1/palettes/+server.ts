import { done } from '$lib/contract/failure';
import { api } from '$lib/server/app/http';
import { createPalette, listPalettes } from '$lib/server/repo/palettes';

export const GET = api('listPalettes', ({ app }) => done(listPalettes(app.db)));
export const POST = api('createPalette', ({ app, body }) => createPalette(app.db, body.name, body));

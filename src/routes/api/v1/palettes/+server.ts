import { done } from '$lib/contract/failure';
import { api } from '$lib/server/app/http';
import { createPalette, listPalettes } from '$lib/server/repo/palettes';

export const GET = api('listPalettes', ({ db }) => done(listPalettes(db)));
export const POST = api('createPalette', ({ db, body }) => createPalette(db, body.name, body));

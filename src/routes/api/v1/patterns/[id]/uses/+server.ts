import { api } from '$lib/server/app/http';
import { publishPreview, setHeld } from '$lib/server/repo/publishing';

export const GET = api('publishPreview', ({ db, params }) => publishPreview(db, params.id));
export const PUT = api('holdUses', ({ db, params, body }) => setHeld(db, params.id, body.fills, body.held));

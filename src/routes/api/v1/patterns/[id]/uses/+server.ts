import { api } from '$lib/server/app/http';
import { publishPreview, setHeld } from '$lib/server/repo/publishing';

export const GET = api('publishPreview', ({ app, params }) => publishPreview(app.db, params.id ?? ''));
export const PUT = api('holdUses', ({ app, params, body }) =>
  setHeld(app.db, params.id ?? '', body.fills, body.held),
);

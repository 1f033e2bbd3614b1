import { api } from '$lib/server/app/http';
import { publishPreview } from '$lib/server/repo/publishing';

export const GET = api('publishPreview', ({ app, params }) => publishPreview(app.db, params.id ?? ''));

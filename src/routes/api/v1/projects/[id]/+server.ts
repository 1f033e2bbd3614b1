import { api } from '$lib/server/app/http';
import { getProject, renameProject } from '$lib/server/repo/projects';

export const GET = api('getProject', ({ app, params }) => getProject(app.db, params.id ?? ''));
export const PATCH = api('renameProject', ({ app, params, body }) =>
  renameProject(app.db, params.id ?? '', body.base, body.name),
);

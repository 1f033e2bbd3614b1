import { api } from '$lib/server/app/http';
import { changeProject, getProject } from '$lib/server/repo/projects';

export const GET = api('getProject', ({ app, params }) => getProject(app.db, params.id ?? ''));
export const PATCH = api('changeProject', ({ app, params, body }) =>
  changeProject(app.db, params.id ?? '', body.base, body),
);

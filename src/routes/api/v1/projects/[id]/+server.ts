import { api } from '$lib/server/app/http';
import { changeProject, getProject } from '$lib/server/repo/projects';

export const GET = api('getProject', ({ db, params }) => getProject(db, params.id));
export const PATCH = api('changeProject', ({ db, params, body }) =>
  changeProject(db, params.id, body.base, body),
);

import { done } from '$lib/contract/failure';
import { api } from '$lib/server/app/http';
import { createProject, listProjects } from '$lib/server/repo/projects';

export const GET = api('listProjects', ({ app }) => done(listProjects(app.db)));
export const POST = api('createProject', ({ app, body }) => createProject(app.db, body.name, body.measure));

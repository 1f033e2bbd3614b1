import { done } from '$lib/contract/failure';
import { api } from '$lib/server/app/http';
import { createProject, listProjects } from '$lib/server/repo/projects';

export const GET = api('listProjects', ({ db }) => done(listProjects(db)));
export const POST = api('createProject', ({ db, body }) => createProject(db, body.name, body.measure));

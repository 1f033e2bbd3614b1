import { api } from '$lib/server/app/http';
import { getProject } from '$lib/server/repo/projects';

export const GET = api('projectProof', async ({ app, db, params, asking }) => {
  const project = getProject(db, params.id);
  if (!project.ok) return project;
  return app.processes.run('proof', { store: app.store, project: project.value.id }, asking);
});

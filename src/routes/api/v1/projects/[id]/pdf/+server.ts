import { fileHeaders } from '$lib/server/app/files';
import { api, sentOnce } from '$lib/server/app/http';

import { getProject } from '$lib/server/repo/projects';

export const GET = api('projectPdf', async ({ app, params, query, asking }) => {
  const project = getProject(app.db, params.id ?? '');
  if (!project.ok) return project;
  const { layouts, ...wish } = query;
  const of = { layouts: layouts.split(','), project: project.value.id, title: project.value.name };
  const path = app.workFile();
  const drawn = await app.processes.run('layoutsPdf', { store: app.store, ...of, ...wish, path }, asking);
  if (!drawn.ok) {
    app.forget(path);
    return drawn;
  }
  return sentOnce(path, fileHeaders({ fileName: `${drawn.value.name}.pdf`, mediaType: 'application/pdf' }));
});

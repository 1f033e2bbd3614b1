import { api } from '$lib/server/app/http';
import { pdfAnswer } from '$lib/server/app/pdf';
import { getProject } from '$lib/server/repo/projects';

export const GET = api('projectPdf', async ({ app, db, params, query, asking }) => {
  const project = getProject(db, params.id);
  if (!project.ok) return project;
  const { layouts, ...wish } = query;
  const { id, name: title } = project.value;
  const of = { store: app.store, layouts: layouts.split(','), project: id, title };
  return pdfAnswer(app, (path) => app.processes.run('layoutsPdf', { ...of, ...wish, path }, asking));
});

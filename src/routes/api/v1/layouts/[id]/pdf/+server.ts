import { api } from '$lib/server/app/http';
import { pdfAnswer } from '$lib/server/app/pdf';

export const GET = api('layoutPdf', ({ app, params, query, asking }) => {
  const of = { store: app.store, layouts: [params.id], project: null, title: null };
  return pdfAnswer(app, (path) => app.processes.run('layoutsPdf', { ...of, ...query, path }, asking));
});

import { fileHeaders } from '$lib/server/app/files';
import { api, sentOnce } from '$lib/server/app/http';

export const GET = api('layoutPdf', async ({ app, params, query, asking }) => {
  const path = app.workFile();
  const of = { layouts: [params.id ?? ''], project: null, title: null };
  const drawn = await app.processes.run('layoutsPdf', { store: app.store, ...of, ...query, path }, asking);
  if (!drawn.ok) {
    app.forget(path);
    return drawn;
  }
  return sentOnce(path, fileHeaders({ fileName: `${drawn.value.name}.pdf`, mediaType: 'application/pdf' }));
});

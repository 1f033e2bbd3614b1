import { fileHeaders } from '$lib/server/app/files';
import { api, sentOnce } from '$lib/server/app/http';

export const GET = api('strikeOffPdf', async ({ app, params, query, asking }) => {
  const path = app.workFile();
  const ask = { store: app.store, sheet: params.id ?? '', ...query, path };
  const drawn = await app.processes.run('sheetPdf', ask, asking);
  if (!drawn.ok) {
    app.forget(path);
    return drawn;
  }
  return sentOnce(path, fileHeaders({ fileName: `${drawn.value.name}.pdf`, mediaType: 'application/pdf' }));
});

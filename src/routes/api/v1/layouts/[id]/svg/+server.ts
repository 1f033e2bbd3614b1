import { svgHeaders } from '$lib/server/app/files';
import { api, sentOnce } from '$lib/server/app/http';

export const GET = api('layoutSvg', async ({ app, params, query, event, asking }) => {
  const path = app.workFile();
  const ask = { store: app.store, layout: params.id, as: query.patterns, bleed: query.bleed, path };
  const drawn = await app.processes.run('layoutSvg', ask, asking);
  if (!drawn.ok) {
    app.forget(path);
    return drawn;
  }
  const asFile = event.request.headers.get('sec-fetch-dest') !== 'image';
  return sentOnce(path, svgHeaders(asFile ? { fileName: `${drawn.value.name}.svg` } : {}));
});

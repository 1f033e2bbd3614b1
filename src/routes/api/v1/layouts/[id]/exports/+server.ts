import { api } from '$lib/server/app/http';
import { sceneOf } from '$lib/server/app/layout-scene';
import { getLayout } from '$lib/server/repo/layouts';

export const POST = api('startExport', ({ app, params, body }) => {
  const layout = getLayout(app.db, params.id ?? '');
  if (!layout.ok) return layout;
  return app.exports.start(sceneOf(app.db, layout.value), body.ppi, layout.value.name);
});

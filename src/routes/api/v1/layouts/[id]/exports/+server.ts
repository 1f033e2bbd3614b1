import { withBleed } from '$lib/core/scene/reframe';
import { api } from '$lib/server/app/http';
import { sceneOf } from '$lib/server/app/layout-scene';
import { getLayout } from '$lib/server/repo/layouts';

export const POST = api('startExport', ({ app, params, body }) => {
  const layout = getLayout(app.db, params.id ?? '');
  if (!layout.ok) return layout;
  const scene = withBleed(sceneOf(app.db, layout.value), body.bleed ? layout.value.bleed : 0);
  return app.exports.start(scene, body.ppi, layout.value.name);
});

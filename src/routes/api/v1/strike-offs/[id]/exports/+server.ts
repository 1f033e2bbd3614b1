import { api } from '$lib/server/app/http';
import { sheetScene } from '$lib/server/app/layout-scene';
import { getStrikeOff } from '$lib/server/repo/strike-offs';

export const POST = api('exportStrikeOff', ({ app, params, body }) => {
  const found = getStrikeOff(app.db, params.id ?? '');
  if (!found.ok) return found;
  return app.exports.start(sheetScene(app.db, found.value), body.ppi, found.value.name);
});

import { svgHeaders } from '$lib/server/app/files';
import { api } from '$lib/server/app/http';
import { getLayout, layoutPatterns } from '$lib/server/repo/layouts';

export const GET = api('layoutSvg', async ({ app, params, query, event }) => {
  const found = getLayout(app.db, params.id ?? '');
  if (!found.ok) return found;
  const layout = found.value;
  const svg = await app.pool.drawing({
    layout,
    patterns: layoutPatterns(app.db, layout.shapes),
    as: query.patterns,
    bleed: query.bleed ? layout.bleed : 0,
  });
  const asFile = event.request.headers.get('sec-fetch-dest') !== 'image';
  const whole = await app.pictures.embed(svg);
  return new Response(whole, { headers: svgHeaders(asFile ? { fileName: `${layout.name}.svg` } : {}) });
});

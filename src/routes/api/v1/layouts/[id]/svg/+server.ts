import { fromPx } from '$lib/core/num/length';
import { maskPicture } from '$lib/core/formats/mask-picture';
import { withBleed } from '$lib/core/scene/layout';
import { layoutSvg } from '$lib/core/svg/layout';
import { svgHeaders } from '$lib/server/app/files';
import { api } from '$lib/server/app/http';
import { sceneOf } from '$lib/server/app/layout-scene';
import { getLayout } from '$lib/server/repo/layouts';

export const GET = api('layoutSvg', async ({ app, params, query, event }) => {
  const found = getLayout(app.db, params.id ?? '');
  if (!found.ok) return found;
  const layout = found.value;
  const say = (px: number): string => `${Number(fromPx(px, layout.measure).toFixed(4))}${layout.measure}`;
  const bleed = query.bleed ? layout.bleed : 0;
  const svg = layoutSvg(withBleed(sceneOf(app.db, layout), bleed), {
    patterns: query.patterns,
    width: say(layout.width + 2 * bleed),
    height: say(layout.height + 2 * bleed),
    title: layout.name,
    maskPicture: (mask) => maskPicture(mask, layout.ppi / 96),
  });
  const asFile = event.request.headers.get('sec-fetch-dest') !== 'image';
  const whole = await app.pictures.embed(svg);
  return new Response(whole, { headers: svgHeaders(asFile ? { fileName: `${layout.name}.svg` } : {}) });
});

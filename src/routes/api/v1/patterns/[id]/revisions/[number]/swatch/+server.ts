import { svgHeaders } from '$lib/server/app/files';
import { api } from '$lib/server/app/http';
import { DRAFT, missingOf } from '$lib/server/repo/made';

export const GET = api('swatch', async ({ app, db, params, query, asking }) => {
  const { colourway = null, look, ...size } = query;
  const id = params.id;
  // What many strips show is made once, and kept.
  const missing = missingOf(db, id, params.number === 'draft' ? DRAFT : Number(params.number));
  if (missing !== null) await app.made.get(missing, asking);
  const drawn = await app.processes.run(
    'swatch',
    {
      ...size,
      store: app.store,
      pattern: id,
      revision: params.number === 'draft' ? 'draft' : Number(params.number),
      colourway,
      named: look !== undefined,
    },
    asking,
  );
  if (!drawn.ok) return drawn;
  const { bytes, fixed } = drawn.value;
  const headers = svgHeaders({ forever: fixed });
  if (query.as === 'png') headers['content-type'] = 'image/png';
  return new Response(new Uint8Array(bytes), { headers });
});

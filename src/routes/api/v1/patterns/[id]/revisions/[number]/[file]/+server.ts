import { fail } from '$lib/contract/failure';
import { CODE_FILES } from '$lib/contract/work';
import { svgHeaders } from '$lib/server/app/files';
import { api } from '$lib/server/app/http';
import { missingOf } from '$lib/server/repo/made';
import { newestOf } from '$lib/server/repo/patterns';

/** Addresses for pages and programs, which may stand anywhere: they are for reading alone. */
export const GET = api('codeFile', async ({ app, db, params, query, event, asking }) => {
  const file = CODE_FILES.find((one) => one === params.file);
  if (!file)
    return fail(
      'not_found',
      `There is no file “${params.file}”; there are ${CODE_FILES.join(', ')}.`,
      'file',
    );
  const number: number | 'newest' = params.number === 'newest' ? 'newest' : Number(params.number);
  if (number !== 'newest' && !(Number.isSafeInteger(number) && number > 0))
    return fail('invalid', 'The revision must be a number, or “newest”.', 'number');
  const pattern = params.id;
  const missing = missingOf(db, pattern, number === 'newest' ? newestOf(db, pattern) : number);
  if (missing !== null) await app.made.get(missing, asking);
  const { colourway = null, colours = null, ...lies } = query;
  const known = event.request.headers.get('if-none-match');
  const ask = { store: app.store, pattern, revision: number, file, colourway, colours, known, ...lies };
  const made = await app.processes.run('codeFile', ask, asking);
  if (!made.ok) return made;
  const { bytes, mediaType, tag, fixed } = made.value;
  const headers = {
    ...svgHeaders({ forever: false }),
    'content-type': mediaType,
    'cache-control': fixed ? 'public, max-age=31536000, immutable' : 'public, no-cache',
    'access-control-allow-origin': '*',
    'cross-origin-resource-policy': 'cross-origin',
    etag: tag,
  };
  return bytes === null
    ? new Response(null, { status: 304, headers })
    : new Response(new Uint8Array(bytes), { headers });
});

import { orError } from '$lib/server/app/page';
import { getShared } from '$lib/server/repo/shared-sheets';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params, setHeaders }) => {
  // Whoever has the link sees it; no one else hears of it.
  setHeaders({ 'cache-control': 'private, no-store', 'x-robots-tag': 'noindex' });
  return { token: params.token, sheet: orError(getShared(locals.db, params.token)) };
};

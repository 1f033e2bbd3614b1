import { orError } from '$lib/server/app/page';
import { openInvitation } from '$lib/server/repo/invitations';
import { keyOf } from '$lib/server/repo/tokens';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params, setHeaders }) => {
  // The link is a key: it must not be kept, nor told to the places that one goes to from here.
  setHeaders({ 'cache-control': 'private, no-store', 'x-robots-tag': 'noindex' });
  return { token: params.token, invitation: orError(openInvitation(locals.app.db, keyOf(params.token))) };
};

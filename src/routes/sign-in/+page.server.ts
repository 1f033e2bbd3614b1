import { redirect } from '@sveltejs/kit';
import { studioState } from '$lib/server/repo/people';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, url }) => {
  const wanted = url.searchParams.get('to') ?? '/';
  // Only into Isle itself: an address of another site could look like it.
  const to = /^\/(?![/\\])/.test(wanted) ? wanted : '/';
  if (locals.person !== null) redirect(303, to);
  return { to, studio: studioState(locals.app.db).name };
};

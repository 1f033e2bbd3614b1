import { orError } from '$lib/server/app/page';
import { getPattern } from '$lib/server/repo/patterns';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params }) => ({
  pattern: orError(getPattern(locals.app.db, params.pattern)),
});

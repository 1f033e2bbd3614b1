import { mayReach, orError } from '$lib/server/app/page';
import { listPalettes } from '$lib/server/repo/palettes';
import { getPattern } from '$lib/server/repo/patterns';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params }) => ({
  pattern: orError(getPattern(locals.db, params.pattern)),
  palettes: listPalettes(locals.db),
  mayChange: mayReach(locals, 'saveDraft', params.pattern),
});

import { orError } from '$lib/server/app/page';
import { libraryFacets } from '$lib/server/repo/find';
import { listPalettes } from '$lib/server/repo/palettes';
import { getPattern, usesAnywhere } from '$lib/server/repo/patterns';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params }) => ({
  pattern: orError(getPattern(locals.db, params.pattern)),
  usesAnywhere: usesAnywhere(locals.db, params.pattern),
  facets: libraryFacets(locals.db),
  palettes: listPalettes(locals.db),
});

import { orError } from '$lib/server/app/page';
import { libraryFacets } from '$lib/server/repo/find';
import { listPalettes } from '$lib/server/repo/palettes';
import { getPattern, usesAnywhere } from '$lib/server/repo/patterns';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params }) => ({
  pattern: orError(getPattern(locals.app.db, params.pattern)),
  usesAnywhere: usesAnywhere(locals.app.db, params.pattern),
  facets: libraryFacets(locals.app.db),
  palettes: listPalettes(locals.app.db),
});

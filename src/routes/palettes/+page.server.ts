import { libraryFacets } from '$lib/server/repo/find';
import { listPalettes } from '$lib/server/repo/palettes';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals }) => ({
  palettes: listPalettes(locals.app.db),
  projects: libraryFacets(locals.app.db).projects,
});

import { libraryFacets } from '$lib/server/repo/find';
import { listPalettes } from '$lib/server/repo/palettes';
import type { LayoutServerLoad } from './$types';

/** What the library can be narrowed by. It does not look at the address, so that a search does not ask for it again. */
export const load: LayoutServerLoad = ({ locals }) => {
  const { db } = locals;
  return { facets: libraryFacets(db), palettes: listPalettes(db) };
};

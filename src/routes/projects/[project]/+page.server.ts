import { orError } from '$lib/server/app/page';
import { listSheets } from '$lib/server/repo/client-sheets';
import { listMockups } from '$lib/server/repo/mockups';
import { listPalettes } from '$lib/server/repo/palettes';
import { getProject } from '$lib/server/repo/projects';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params }) => ({
  project: orError(getProject(locals.app.db, params.project)),
  sheets: listSheets(locals.app.db, params.project),
  mockups: listMockups(locals.app.db, params.project),
  palettes: listPalettes(locals.app.db, params.project),
});

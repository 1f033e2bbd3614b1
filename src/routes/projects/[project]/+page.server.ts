import { mayReach, needReach, orError } from '$lib/server/app/page';
import { listSheets } from '$lib/server/repo/client-sheets';
import { listMockups } from '$lib/server/repo/mockups';
import { listPalettes } from '$lib/server/repo/palettes';
import { getProject } from '$lib/server/repo/projects';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params }) => {
  needReach(locals, 'project', params.project);
  return {
    project: orError(getProject(locals.db, params.project)),
    mayChange: mayReach(locals, 'createLayout', params.project),
    sheets: listSheets(locals.db, params.project),
    mockups: listMockups(locals.db, params.project),
    palettes: listPalettes(locals.db, params.project),
  };
};

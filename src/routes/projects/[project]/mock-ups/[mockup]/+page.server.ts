import { error } from '@sveltejs/kit';
import { layoutsIn } from '$lib/core/mockup/mockup';
import { mayReach, needReach, orError } from '$lib/server/app/page';
import { hangersFor } from '$lib/server/repo/find';
import { getLayout, layoutInUse } from '$lib/server/repo/layouts';
import { getMockup } from '$lib/server/repo/mockups';
import { listPalettes } from '$lib/server/repo/palettes';
import { getProject } from '$lib/server/repo/projects';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params }) => {
  const { db } = locals;
  needReach(locals, 'mockup', params.mockup);
  const mockup = orError(getMockup(db, params.mockup));
  if (mockup.projectId !== params.project)
    error(404, `There is no mock-up “${params.mockup}” in this project.`);
  const { layoutList, measure } = orError(getProject(db, mockup.projectId));
  return {
    mockup,
    measure,
    mayChange: mayReach(locals, 'saveMockup', mockup.id),
    layouts: layoutList,
    used: layoutsIn(mockup.body).flatMap((id) => {
      const found = getLayout(db, id);
      return found.ok ? [layoutInUse(db, found.value)] : [];
    }),
    hangers: hangersFor(db, mockup.projectId),
    palettes: listPalettes(db, mockup.projectId),
  };
};

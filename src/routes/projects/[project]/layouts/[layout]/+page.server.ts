import { error } from '@sveltejs/kit';
import { mayReach, needReach, orError } from '$lib/server/app/page';
import { getLayout, layoutInUse } from '$lib/server/repo/layouts';
import { listPalettes } from '$lib/server/repo/palettes';
import { layoutsOf, projectPress, projectProof } from '$lib/server/repo/projects';
import { hangersFor } from '$lib/server/repo/find';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params, url }) => {
  const { db } = locals;
  needReach(locals, 'layout', params.layout);
  const layout = orError(getLayout(db, params.layout));
  if (layout.projectId !== params.project)
    error(404, `There is no layout “${params.layout}” in this project.`);
  return {
    ...layoutInUse(db, layout),
    layouts: layoutsOf(db, layout.projectId),
    hangers: hangersFor(db, layout.projectId),
    palettes: listPalettes(db, layout.projectId),
    mayChange: mayReach(locals, 'changeLayout', layout.id),
    shape: url.searchParams.get('shape'),
    proof: projectProof(db, layout.projectId),
    press: projectPress(db, layout.projectId),
    proofing: url.searchParams.has('proof'),
  };
};

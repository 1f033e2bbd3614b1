import { error } from '@sveltejs/kit';
import { mayReach, needReach, orError } from '$lib/server/app/page';
import { getSheet } from '$lib/server/repo/client-sheets';
import { listMockups } from '$lib/server/repo/mockups';
import { listPalettes } from '$lib/server/repo/palettes';
import { getProject } from '$lib/server/repo/projects';
import { listStrikeOffs } from '$lib/server/repo/strike-offs';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params }) => {
  const { db } = locals;
  needReach(locals, 'sheet', params.sheet);
  const sheet = orError(getSheet(db, params.sheet));
  if (sheet.projectId !== params.project)
    error(404, `There is no client sheet “${params.sheet}” in this project.`);
  const project = orError(getProject(db, sheet.projectId));
  return {
    sheet,
    mayChange: mayReach(locals, 'saveSheet', sheet.id),
    sources: {
      mockups: listMockups(db, project.id),
      layouts: project.layoutList,
      patterns: project.patternList,
      palettes: listPalettes(db, project.id),
      strikeOffs: listStrikeOffs(db, project.id),
    },
  };
};

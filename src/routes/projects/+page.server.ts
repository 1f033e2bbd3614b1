import { layoutsOf, listProjects } from '$lib/server/repo/projects';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, url }) => {
  const archived = url.searchParams.get('show') === 'archived';
  const projects = listProjects(locals.db, archived);
  return {
    archived,
    projects: projects.map((project) => ({ ...project, layoutList: layoutsOf(locals.db, project.id) })),
  };
};

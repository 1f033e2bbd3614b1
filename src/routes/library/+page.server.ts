import { listPatterns } from '$lib/server/repo/find';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, url }) => {
  const search = url.searchParams.get('search') ?? '';
  const show = url.searchParams.get('show') ?? 'all';
  const query = { search, archived: show === 'archived', drafts: true, limit: 1000, offset: 0 };
  const patterns = listPatterns(locals.app.db, query);
  return {
    search,
    show,
    patterns: show === 'drafts' ? patterns.filter((pattern) => pattern.hasDraft) : patterns,
    count: listPatterns(locals.app.db, { ...query, search: '', archived: false }).length,
  };
};

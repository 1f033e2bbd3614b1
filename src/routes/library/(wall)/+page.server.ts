import type { PatternQuery } from '$lib/contract/given';
import { findPatterns } from '$lib/server/repo/find';
import { schemas } from '$lib/contract/schemas';
import { apiQuery, PAGE, readView } from '$lib/ui/library/query';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, url }) => {
  const { db } = locals;
  const view = readView(url.searchParams);
  const read = schemas.patternQuery.validate(apiQuery(view), { convert: true });
  const query: PatternQuery = read.error ? {} : (read.value as PatternQuery);
  return { view, first: findPatterns(db, { ...query, limit: PAGE, offset: 0 }) };
};

import { done, fail } from '$lib/contract/failure';
import { api } from '$lib/server/app/http';
import { recipeAt } from '$lib/server/repo/patterns';

export const GET = api('getRevision', ({ app, params }) => {
  const recipe = recipeAt(app.db, params.id ?? '', Number(params.number));
  return recipe
    ? done(recipe)
    : fail('not_found', `There is no revision ${params.number} of the pattern “${params.id}”.`, 'number');
});

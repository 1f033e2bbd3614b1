import { fail } from '$lib/contract/failure';
import { resolveSlots } from '$lib/core/colour/slots';
import { compileUnit } from '$lib/core/scene/unit';
import { swatchSvg } from '$lib/core/svg/swatch';
import { svgHeaders } from '$lib/server/app/files';
import { api } from '$lib/server/app/http';
import { getPattern, recipeAt } from '$lib/server/repo/patterns';

export const GET = api('swatch', ({ app, params, query }) => {
  const id = params.id ?? '';
  const pattern = getPattern(app.db, id);
  if (!pattern.ok) return pattern;
  const isDraft = params.number === 'draft';
  const recipe = isDraft ? pattern.value.draft : recipeAt(app.db, id, Number(params.number));
  if (!recipe)
    return fail('not_found', `There is no revision ${params.number} of “${pattern.value.name}”.`, 'number');
  const svg = swatchSvg(compileUnit(recipe), resolveSlots(recipe.slots, {}), {
    ...query,
    title: pattern.value.name,
  });
  return new Response(svg, { headers: svgHeaders({ forever: !isDraft }) });
});

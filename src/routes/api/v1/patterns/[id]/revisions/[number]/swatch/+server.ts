import { fail } from '$lib/contract/failure';
import { resolveSlots } from '$lib/core/colour/slots';
import { compileUnit } from '$lib/core/scene/unit';
import { embedPictures } from '$lib/core/svg/paint';
import { swatchSvg } from '$lib/core/svg/swatch';
import { svgHeaders } from '$lib/server/app/files';
import { api } from '$lib/server/app/http';
import { assetUrl } from '$lib/server/repo/assets';
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
  const whole = embedPictures(svg, (asset) => assetUrl(app.db, asset));
  return new Response(whole, { headers: svgHeaders({ forever: !isDraft }) });
});

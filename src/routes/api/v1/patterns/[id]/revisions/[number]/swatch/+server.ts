import { fail } from '$lib/contract/failure';
import { resolveSlots } from '$lib/core/colour/slots';
import { plainColours } from '$lib/core/colour/tint';
import { compileUnit } from '$lib/core/scene/unit';
import { swatchSvg } from '$lib/core/svg/swatch';
import { svgHeaders } from '$lib/server/app/files';
import { api } from '$lib/server/app/http';
import { swatchPicture } from '$lib/server/app/swatch-picture';
import { getPattern, shownRecipe } from '$lib/server/repo/patterns';

export const GET = api('swatch', async ({ app, params, query }) => {
  const id = params.id ?? '';
  const pattern = getPattern(app.db, id);
  if (!pattern.ok) return pattern;
  const isDraft = params.number === 'draft';
  const recipe = isDraft ? pattern.value.draft : shownRecipe(app.db, id, Number(params.number));
  if (!recipe)
    return fail('not_found', `There is no revision ${params.number} of “${pattern.value.name}”.`, 'number');
  const way = pattern.value.colourways.find((one) => one.id === query.colourway);
  if (query.colourway && !way)
    return fail('not_found', `“${pattern.value.name}” has no such colourway.`, 'colourway');
  const over = way ? plainColours(way.colours) : {};
  // What follows a palette may look different tomorrow: only an address that names its look is kept for ever.
  const fixed = !isDraft && !way && (query.look !== undefined || recipe.slots.every((slot) => !slot.link));
  if (query.as === 'png') {
    const bytes = await swatchPicture(app, recipe, over, query);
    const headers = { ...svgHeaders({ forever: fixed }), 'content-type': 'image/png' };
    return new Response(new Uint8Array(bytes), { headers });
  }
  const svg = swatchSvg(compileUnit(recipe), resolveSlots(recipe.slots, over), {
    ...query,
    title: pattern.value.name,
  });
  return new Response(await app.pictures.embed(svg), { headers: svgHeaders({ forever: fixed }) });
});

import { grows, PICTURED_LIMITS, type Pictured } from '$lib/core/recipe/pictured';
import { TEXTURE_SIDE } from '$lib/core/recipe/texture';
import { checkRecipe } from '$lib/core/recipe/check';
import type { PicturedRecipe } from '$lib/core/recipe/recipe';
import { withRegion, withSteps, withTexture } from './pictured-recipes';

/** A way to make a unit harder to find, and the recipe that it comes to. */
export type Proposal = { name: string; recipe: PicturedRecipe };

/** A region is made larger by so much where the picture has room, or at least by the second number. */
const LARGER = 1.5;
const LEAST_LARGER = 1.1;

/** Everything that may make the unit of a repeat harder to find and can be done with it as it is. */
export function proposalsFor(recipe: PicturedRecipe): Proposal[] {
  const { pictured, lay } = recipe;
  const { tone, symmetry, join, source } = pictured;
  const proposals: Proposal[] = [];
  const offer = (name: string, made: PicturedRecipe | null): void => {
    if (made && checkRecipe(made).length === 0) proposals.push({ name, recipe: made });
  };
  if (!source.texture && !(tone.on && tone.even === 1))
    offer(
      'even light',
      withSteps(recipe, (from) => ({ ...from, tone: { ...from.tone, on: true, even: 1 } })),
    );
  offer('larger', larger(recipe));
  if (!symmetry.on && !(grows(pictured) && join.times === PICTURED_LIMITS.times.most))
    offer('grown', withSteps(recipe, grown));
  if (!symmetry.on && !grows(pictured) && lay.kind === 'straight')
    offer('half-drop', { ...recipe, lay: { kind: 'half-drop', step: 0.5 } });
  return proposals;
}

const grown = (from: Pictured): Pictured => ({
  ...from,
  join: { ...from.join, on: true, how: 'grown', times: grows(from) ? from.join.times + 1 : from.join.times },
});

/** More of the picture in one unit, about the same middle; a texture is made larger. */
function larger(recipe: PicturedRecipe): PicturedRecipe | null {
  const { source, region } = recipe.pictured;
  if (source.texture) {
    const { width, height } = source.texture;
    if (2 * Math.max(width, height) > TEXTURE_SIDE.most) return null;
    return withTexture(recipe, (from) => ({ ...from, width: 2 * width, height: 2 * height }));
  }
  if (region.corners) return null;
  const turn = (region.turn * Math.PI) / 180;
  const [cos, sin] = [Math.abs(Math.cos(turn)), Math.abs(Math.sin(turn))];
  const across = (region.width * cos + region.height * sin) / 2;
  const down = (region.width * sin + region.height * cos) / 2;
  const room = Math.min(source.width / (2 * across), source.height / (2 * down));
  const factor = Math.min(LARGER, room);
  if (factor < LEAST_LARGER) return null;
  const within = (middle: number, reach: number, side: number): number =>
    Math.min(Math.max(middle, reach * factor), side - reach * factor);
  return withSteps(recipe, (from) =>
    withRegion(from, {
      ...region,
      x: within(region.x, across, source.width),
      y: within(region.y, down, source.height),
      width: Math.floor(region.width * factor),
      height: Math.floor(region.height * factor),
    }),
  );
}

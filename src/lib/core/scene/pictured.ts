import { scaling, translation, multiply } from '../geom/affine';
import { madeAsset, madeSize } from '../recipe/made';
import { slotIdsOf } from '../recipe/pictured';
import { emptyRecipe, freshPlacing, type ComposedRecipe, type PicturedRecipe } from '../recipe/recipe';
import { drawingOf, pictureElement } from './drawing';

/** A pattern made from a picture as one that is composed: what was made, as large as the unit, laid edge to edge. */
export function asLaid(recipe: PicturedRecipe, asset = madeAsset(recipe)): ComposedRecipe {
  const { measure, unit, lay, ground, slots, pictured } = recipe;
  const { width, height } = madeSize(pictured);
  const matrix = multiply(
    scaling(unit.width / width, unit.height / height),
    translation(-width / 2, -height / 2),
  );
  const { clear } = pictured.source;
  const numbers = slotIdsOf(pictured);
  const picture = {
    asset,
    width,
    height,
    matrix,
    ...(clear ? { clear } : {}),
    ...(numbers.length > 0 ? { slots: numbers } : {}),
  };
  const content = drawingOf([pictureElement(picture)], asset);
  return {
    ...emptyRecipe(measure, unit),
    ground,
    slots,
    repeat: lay.kind === 'straight' ? lay : { ...lay, run: 'progressive' },
    motifs: [{ id: 'made', name: pictured.source.name, content }],
    placings: [freshPlacing('made', 'made', { x: unit.width / 2, y: unit.height / 2 })],
  };
}

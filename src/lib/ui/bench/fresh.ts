import { nanoid } from 'nanoid';
import { toPx } from '$lib/core/num/length';
import type { ShapeForm } from '$lib/core/geom/shapes';
import { emptyRecipe, type MotifContent, type Recipe } from '$lib/core/recipe/recipe';

/** The recipe that a new pattern starts from: an empty, clear unit of 60 × 60 mm. */
export function freshRecipe(): Recipe {
  return emptyRecipe('mm', { width: toPx(60, 'mm'), height: toPx(60, 'mm') });
}

/** From so many pieces on the bench leaves the underlay of abutting edges out; files have it all the same. */
export const MANY_PIECES = 800;

export const FORM_CHOICES = [
  { id: 'rectangle', label: 'Rectangle' },
  { id: 'ellipse', label: 'Ellipse' },
  { id: 'polygon', label: 'Polygon' },
  { id: 'star', label: 'Star' },
  { id: 'line', label: 'Line' },
] as const;

export type FormChoice = (typeof FORM_CHOICES)[number]['id'];

const FORMS: Record<Exclude<FormChoice, 'line'>, ShapeForm> = {
  rectangle: { kind: 'rectangle', radius: 0 },
  ellipse: { kind: 'ellipse' },
  polygon: { kind: 'polygon', sides: 6 },
  star: { kind: 'star', points: 5, inner: 0.5 },
};

/** A built-in form at about a third of the unit, in a slot. */
export function freshContent(
  choice: FormChoice,
  unit: { width: number; height: number },
  slot: string,
): MotifContent {
  const side = Math.min(unit.width, unit.height) / 3;
  if (choice === 'line')
    return { kind: 'line', length: side * 1.5, thickness: side / 10, cap: 'round', slot };
  return { kind: 'form', form: FORMS[choice], width: side, height: side, slot };
}

/** Colours for new slots, taken in turn. */
const FRESH_COLOURS = ['#10394d', '#e5572e', '#2f8fab', '#f3c14b', '#57213f', '#5d7a52'];

/** A colour that the recipe does not have yet. */
export function freshColour(recipe: Recipe): string {
  const held = new Set(recipe.slots.map((slot) => slot.colour));
  return FRESH_COLOURS.find((colour) => !held.has(colour)) ?? '#8b938f';
}

export const newId = (): string => nanoid(12);

import { compareColours } from '../colour/difference';
import { usedSlots } from './edit';
import { groundSlots, type Recipe } from './recipe';

export type Contrast = {
  slot: string;
  name: string;
  against: string;
  ratio: number;
  deltaE: number;
  alike: boolean;
};

/** How the colours of the art stand against the ground or, where it is clear, the surface. The least first. */
export function contrasts(recipe: Recipe, surface: { name: string; colour: string } | null): Contrast[] {
  const byId = new Map(recipe.slots.map((slot) => [slot.id, slot]));
  const grounds = groundSlots(recipe.ground).flatMap((id) => byId.get(id) ?? []);
  const behind =
    grounds.length > 0 ? grounds.map(({ name, colour }) => ({ name, colour })) : surface ? [surface] : [];
  const inks = usedSlots({ ...recipe, ground: { kind: 'clear' } });
  return recipe.slots
    .filter((slot) => inks.has(slot.id) && !grounds.includes(slot))
    .flatMap((slot) =>
      behind.map((under) => ({
        slot: slot.id,
        name: slot.name,
        against: under.name,
        ...compareColours(slot.colour, under.colour),
      })),
    )
    .sort((one, other) => one.deltaE - other.deltaE);
}

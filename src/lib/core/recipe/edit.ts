import type { ColourSlot } from '../colour/slots';
import type { Box } from '../geom/box';
import type { Motif, MotifContent, Placing, Recipe } from './recipe';

/** Slots that motifs or ground refer to. */
export function usedSlots(recipe: Recipe): Set<string> {
  const used = new Set<string>();
  if (recipe.ground.kind === 'slot') used.add(recipe.ground.slot);
  for (const { content } of recipe.motifs) for (const slot of slotsOf(content)) used.add(slot);
  return used;
}

/** The slots that a motif's content refers to. */
export function slotsOf(content: MotifContent): string[] {
  if (content.kind !== 'drawing') return [content.slot];
  const slots = content.elements.flatMap((element) => [element.fill, element.stroke?.slot ?? null]);
  return [...new Set(slots.filter((slot): slot is string => slot !== null))];
}

/**
 * A motif's content and colours brought into a recipe: a colour that the recipe has already is used, others are
 * added. Answers the recipe's new slots and the content that refers to them.
 */
export function mergeSlots(
  held: readonly ColourSlot[],
  content: MotifContent,
  brought: readonly ColourSlot[],
): { slots: ColourSlot[]; content: MotifContent } {
  const slots = [...held];
  const renamed = new Map<string, string>();
  for (const slot of brought) {
    const same = slots.find((known) => known.colour === slot.colour);
    if (!same)
      slots.push({
        ...slot,
        name: freeName(
          slot.name,
          slots.map((known) => known.name),
        ),
      });
    renamed.set(slot.id, same?.id ?? slot.id);
  }
  const to = (slot: string): string => renamed.get(slot) ?? slot;
  if (content.kind !== 'drawing') return { slots, content: { ...content, slot: to(content.slot) } };
  const elements = content.elements.map((element) => ({
    ...element,
    fill: element.fill === null ? null : to(element.fill),
    stroke: element.stroke && { ...element.stroke, slot: to(element.stroke.slot) },
  }));
  return { slots, content: { ...content, elements } };
}

/** The recipe with its unit fitted to the art: the box of all pieces becomes the unit, gaps stay. */
export function fitUnit(recipe: Recipe, artBox: Box): Recipe {
  return {
    ...recipe,
    unit: { width: artBox.width, height: artBox.height },
    placings: recipe.placings.map((placing) => ({
      ...placing,
      x: placing.x - artBox.x,
      y: placing.y - artBox.y,
    })),
  };
}

/** The recipe with some placings changed; the others stay the same objects. */
export function changePlacings(
  recipe: Recipe,
  ids: ReadonlySet<string>,
  change: (placing: Placing) => Placing,
): Recipe {
  return {
    ...recipe,
    placings: recipe.placings.map((placing) => (ids.has(placing.id) ? change(placing) : placing)),
  };
}

/** The recipe without a motif and its placings. */
export function removeMotif(recipe: Recipe, id: string): Recipe {
  return {
    ...recipe,
    motifs: recipe.motifs.filter((motif) => motif.id !== id),
    placings: recipe.placings.filter((placing) => placing.motif !== id),
  };
}

/** The recipe with one motif changed; all its placings follow. */
export function changeMotif(recipe: Recipe, id: string, change: (motif: Motif) => Motif): Recipe {
  return { ...recipe, motifs: recipe.motifs.map((motif) => (motif.id === id ? change(motif) : motif)) };
}

/** `name`, or with a number behind it where it is taken. */
export function freeName(name: string, taken: readonly string[]): string {
  if (!taken.includes(name)) return name;
  const stem = name.replace(/ \d+$/, '');
  let number = 2;
  while (taken.includes(`${stem} ${number}`)) number += 1;
  return `${stem} ${number}`;
}

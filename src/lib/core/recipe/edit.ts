import type { ColourSlot } from '../colour/slots';
import type { Box } from '../geom/box';
import { roundTo } from '../num/tolerance';
import { measuredSlots } from './measured';
import { slotIdsOf } from './pictured';
import {
  groundSlots,
  type ComposedRecipe,
  type DrawingElement,
  type Motif,
  type MotifContent,
  type Paint,
  type Placing,
  type Recipe,
} from './recipe';

/** Slots that motifs or ground refer to. */
export function usedSlots(recipe: Recipe): Set<string> {
  const used = new Set<string>(groundSlots(recipe.ground));
  if (recipe.kind === 'measured') for (const slot of measuredSlots(recipe.measured)) used.add(slot);
  else if (recipe.kind === 'pictured') for (const slot of slotIdsOf(recipe.pictured)) used.add(slot);
  else for (const motif of recipe.motifs) for (const slot of motifSlots(motif)) used.add(slot);
  return used;
}

/** The slots that a motif refers to, those of its shadows included. */
export function motifSlots({ content, effects }: Motif): string[] {
  const shadows = [effects?.drop?.slot, effects?.inner?.slot].filter((slot) => slot !== undefined);
  return [...new Set([...slotsOf(content), ...shadows])];
}

/** The slots that a motif's content refers to. */
export function slotsOf(content: MotifContent): string[] {
  if (content.kind !== 'drawing') return [content.slot];
  return [...new Set(content.elements.flatMap(elementSlots))];
}

/** The slots that one element is painted with. */
export function elementSlots({ fill, stroke }: DrawingElement): string[] {
  return [...paintSlots(fill), ...(stroke ? [stroke.slot] : [])];
}

/** The slots of a paint, in the order of a gradient's stops. */
export function paintSlots(paint: Paint | null): string[] {
  if (paint === null) return [];
  return typeof paint === 'string' ? [paint] : paint.stops.map((stop) => stop.slot);
}

/** A paint with its slots renamed. */
export function renamePaint(paint: Paint | null, to: (slot: string) => string): Paint | null {
  if (paint === null) return null;
  if (typeof paint === 'string') return to(paint);
  return { ...paint, stops: paint.stops.map((stop) => ({ ...stop, slot: to(stop.slot) })) };
}

/** A drawing's elements with their slots renamed. */
export function renameElement(element: DrawingElement, to: (slot: string) => string): DrawingElement {
  return {
    ...element,
    fill: renamePaint(element.fill, to),
    stroke: element.stroke && { ...element.stroke, slot: to(element.stroke.slot) },
  };
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
  const elements = content.elements.map((element) => renameElement(element, to));
  return { slots, content: { ...content, elements } };
}

/** The recipe with its unit fitted to the art: the box of all pieces and `margin` px round it become the unit, gaps stay. */
export function fitUnit(recipe: ComposedRecipe, artBox: Box, margin = 0): ComposedRecipe {
  const shift = { x: artBox.x - margin, y: artBox.y - margin };
  // What was typed as 3 in shall be 3 in, not what is left of it after a few sums.
  const side = (length: number): number => roundTo(length + 2 * margin, 6);
  return {
    ...recipe,
    unit: { width: side(artBox.width), height: side(artBox.height) },
    placings: recipe.placings.map((placing) => ({
      ...placing,
      x: placing.x - shift.x,
      y: placing.y - shift.y,
    })),
    aids: {
      ...recipe.aids,
      guides: recipe.aids.guides.map(({ axis, at }) => ({ axis, at: at - shift[axis] })),
    },
  };
}

/** The recipe with some placings changed; the others stay the same objects. */
export function changePlacings(
  recipe: ComposedRecipe,
  ids: ReadonlySet<string>,
  change: (placing: Placing) => Placing,
): ComposedRecipe {
  return {
    ...recipe,
    placings: recipe.placings.map((placing) => (ids.has(placing.id) ? change(placing) : placing)),
  };
}

/** The recipe without a motif and its placings. */
export function removeMotif(recipe: ComposedRecipe, id: string): ComposedRecipe {
  return {
    ...recipe,
    motifs: recipe.motifs.filter((motif) => motif.id !== id),
    placings: recipe.placings.filter((placing) => placing.motif !== id),
  };
}

/** The recipe with one motif changed; all its placings follow. */
export function changeMotif(
  recipe: ComposedRecipe,
  id: string,
  change: (motif: Motif) => Motif,
): ComposedRecipe {
  return { ...recipe, motifs: recipe.motifs.map((motif) => (motif.id === id ? change(motif) : motif)) };
}

/** The recipe with the given placings cut loose: each motif among them is copied once, and they refer to the copy. */
export function makeIndependent(
  recipe: ComposedRecipe,
  ids: ReadonlySet<string>,
  newId: () => string,
): ComposedRecipe {
  const motifs = [...recipe.motifs];
  const copies = new Map<string, string>();
  const placings = recipe.placings.map((placing) => {
    if (!ids.has(placing.id)) return placing;
    const held = copies.get(placing.motif);
    if (held) return { ...placing, motif: held };
    const original = recipe.motifs.find((motif) => motif.id === placing.motif);
    if (!original) return placing;
    const id = newId();
    const names = motifs.map((motif) => motif.name);
    motifs.push({ ...original, id, name: freeName(original.name, names) });
    copies.set(placing.motif, id);
    return { ...placing, motif: id };
  });
  return { ...recipe, motifs, placings };
}

/** Names as given, each with the next number behind it where it is taken, by one of `taken` or by one before it. */
export function freeNames(names: readonly string[], taken: readonly string[]): string[] {
  const held = new Set(taken);
  const counted = new Map<string, number>();
  return names.map((name) => {
    if (!held.has(name)) {
      held.add(name);
      return name;
    }
    const stem = name.replace(/ \d+$/, '');
    let number = counted.get(stem) ?? 2;
    while (held.has(`${stem} ${number}`)) number += 1;
    counted.set(stem, number + 1);
    held.add(`${stem} ${number}`);
    return `${stem} ${number}`;
  });
}

/** `name`, or with a number behind it where it is taken. */
export const freeName = (name: string, taken: readonly string[]): string =>
  freeNames([name], taken)[0] ?? name;

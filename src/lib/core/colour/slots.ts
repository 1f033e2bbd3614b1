import type { Hex } from './parse';
import type { Tint } from './tint';

/** A colour place in a pattern; motifs and ground refer to it by `id`. Its colour may follow a palette. */
export type ColourSlot = Tint & { id: string; name: string };

/** Colours for some or all slots, by slot id. */
export type SlotColours = Readonly<Record<string, Hex>>;

/** What is drawn where a slot has no colour: it cannot happen in a checked recipe, and must not look right. */
const NO_COLOUR = '#000000';

/** The colour of a slot among those of a use. */
export const colourOf = (colours: SlotColours, slot: string): Hex => colours[slot] ?? NO_COLOUR;

/** The colours that the numbers of a numbered picture stand for; `null` for any other picture. */
export const numberColours = (slots: readonly string[] | undefined, colours: SlotColours): Hex[] | null =>
  slots?.map((slot) => colourOf(colours, slot)) ?? null;

/** The colour of every slot: the pattern's own, replaced where `over` names another. Unknown ids in `over` are passed over. */
export function resolveSlots(slots: readonly ColourSlot[], over: SlotColours): Record<string, Hex> {
  return Object.fromEntries(slots.map((slot) => [slot.id, over[slot.id] ?? slot.colour]));
}

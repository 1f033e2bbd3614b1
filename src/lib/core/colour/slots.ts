import type { Hex } from './parse';
import type { Tint } from './tint';

/** A colour place in a pattern; motifs and ground refer to it by `id`. Its colour may follow a palette. */
export type ColourSlot = Tint & { id: string; name: string };

/** Colours for some or all slots, by slot id. */
export type SlotColours = Readonly<Record<string, Hex>>;

/** The colour of every slot: the pattern's own, replaced where `over` names another. Unknown ids in `over` are passed over. */
export function resolveSlots(slots: readonly ColourSlot[], over: SlotColours): Record<string, Hex> {
  return Object.fromEntries(slots.map((slot) => [slot.id, over[slot.id] ?? slot.colour]));
}

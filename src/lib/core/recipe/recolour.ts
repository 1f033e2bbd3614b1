import type { Colourway } from '../colour/colourway';
import type { ColourSlot } from '../colour/slots';
import { nearestColour, orderColours } from '../colour/order';
import { mapSame, tintOf, type Tint } from '../colour/tint';
import type { Fill, PatternFill } from './fill';
import { mapFills, type Layout } from './layout';
import { recolourFill } from './links';

/** The slots and colourways of the pattern that a fill shows. */
export type PatternColours = { slots: readonly ColourSlot[]; colourways: readonly Colourway[] };

/** The tint that a use shows in each slot: the pattern's own, that of its colourway, its own over all. */
export function shownTints(
  fill: Pick<PatternFill, 'colours' | 'colourway'>,
  { slots, colourways }: PatternColours,
): Record<string, Tint> {
  const way = colourways.find((one) => one.id === fill.colourway)?.colours ?? {};
  return Object.fromEntries(
    slots.map((slot) => [slot.id, fill.colours[slot.id] ?? way[slot.id] ?? tintOf(slot.colour, slot.link)]),
  );
}

/**
 * A fill with all colours that it shows changed, those included that come from its pattern or colourway: where one
 * changes the use gets a colour of its own. `change` answers the same tint to leave it. The same fill where nothing changes.
 */
export function recolourUse(fill: Fill, pattern: PatternColours | null, change: (tint: Tint) => Tint): Fill {
  if (fill.kind !== 'pattern' || !pattern) return same(fill, recolourFill(fill, change));
  const colours: Record<string, Tint> = { ...fill.colours };
  for (const [slot, tint] of Object.entries(shownTints(fill, pattern))) {
    const changed = change(tint);
    if (changed !== tint) colours[slot] = changed;
  }
  const rest = recolourFill({ ...fill, colours: {} }, change) as PatternFill;
  return same(fill, { ...rest, colours });
}

function same(before: Fill, after: Fill): Fill {
  return JSON.stringify(before) === JSON.stringify(after) ? before : after;
}

/** A colour of one palette and what takes its place. */
export type Exchange = { from: { id: string; hex: string }; to: { id: string; hex: string } };

/** Puts the colours of one palette in the place of those of another: what follows a colour, or looks just like it, changes. */
export function exchangeColours(exchanges: readonly Exchange[]): (tint: Tint) => Tint {
  return (tint) => {
    const found =
      exchanges.find(({ from }) => from.id === tint.link) ??
      (tint.link === undefined ? exchanges.find(({ from }) => from.hex === tint.colour) : undefined);
    return found ? { colour: found.to.hex, link: found.to.id } : tint;
  };
}

/** Counterparts for the colours of one palette among those of another: the most alike (ΔE2000), or by lightness, place or name. */
export function shownExchanges(
  from: readonly PaletteColour[],
  to: readonly PaletteColour[],
  by: 'likeness' | 'lightness' | 'place' | 'name',
): Exchange[] {
  if (to.length === 0) return [];
  const pair = (one: PaletteColour, other: PaletteColour): Exchange => ({
    from: { id: one.id, hex: one.hex },
    to: { id: other.id, hex: other.hex },
  });
  if (by === 'name')
    return from.flatMap((one) => {
      const same = to.find((other) => other.name.toLowerCase() === one.name.toLowerCase());
      return same ? [pair(one, same)] : [];
    });
  if (by === 'likeness')
    return from.flatMap((one) => {
      const near = nearestColour(to, one.hex);
      return near ? [pair(one, near)] : [];
    });
  if (by === 'place') return from.slice(0, to.length).map((one, index) => pair(one, to[index]!));
  const light = orderColours(to, 'lightness');
  return orderColours(from, 'lightness').map((one, index, all) => {
    const share = all.length === 1 ? 0 : index / (all.length - 1);
    return pair(one, light[Math.round(share * (light.length - 1))]!);
  });
}

type PaletteColour = { id: string; name: string; hex: string };

/** A layout with the colours of its fills and background exchanged; the same object where nothing changes. */
export function recolourLayout<T extends Layout>(
  layout: T,
  patternOf: (fill: Fill) => PatternColours | null,
  exchanges: readonly Exchange[],
): T {
  const change = exchangeColours(exchanges);
  const shapes = mapSame(layout.shapes, (shape) =>
    mapFills(shape, (fill) => recolourUse(fill, patternOf(fill), change)),
  );
  const before = layout.background === null ? null : tintOf(layout.background, layout.backgroundLink);
  const after = before && change(before);
  if (shapes === layout.shapes && after === before) return layout;
  const page =
    after && after !== before ? { background: after.colour, backgroundLink: after.link ?? null } : {};
  return { ...layout, shapes, ...page };
}

/**
 * A use filled with another pattern: place, size, turn, opacity and ground stay; colours of its own stay where the new
 * pattern has a slot of the same name, since the others name slots that it does not have.
 */
export function replacePattern(
  fill: PatternFill,
  pattern: string,
  before: readonly ColourSlot[],
  after: readonly ColourSlot[],
): PatternFill {
  const colours: Record<string, Tint> = {};
  for (const [slot, tint] of Object.entries(fill.colours)) {
    const name = before.find((held) => held.id === slot)?.name.toLowerCase();
    const match = after.find((held) => held.name.toLowerCase() === name);
    if (match) colours[match.id] = tint;
  }
  return { ...fill, pattern, held: null, colourway: null, colours };
}

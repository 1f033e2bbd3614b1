import { clusterColours } from '../colour/cluster';
import { deltaE2000 } from '../colour/difference';
import { hexOf, channelsOf, type Hex } from '../colour/parse';
import type { ColourSlot } from '../colour/slots';
import { deltaOk, toOklab } from '../colour/space';
import { LIMITS } from '../recipe/limits';
import type { DrawingElement, Paint } from '../recipe/recipe';

/** More colours than this are first brought to fewer levels of each channel, which no eye tells from each other here. */
const MANY = 700;

/**
 * Merges the colours of a drawing that are most alike until a pattern can hold them; each group takes the colour of its
 * member nearest to its middle. `note` says how far the furthest colour was moved.
 */
export function mergeColours(
  elements: readonly DrawingElement[],
  slots: readonly ColourSlot[],
  most: number = LIMITS.slots,
): { elements: DrawingElement[]; slots: ColourSlot[]; note: string | null } {
  if (slots.length <= most) return { elements: [...elements], slots: [...slots], note: null };
  const coarse = (hex: Hex): Hex => {
    if (slots.length <= MANY) return hex;
    const [r, g, b] = channelsOf(hex);
    const level = (value: number): number => Math.round(value / 17) * 17;
    return hexOf([level(r), level(g), level(b)]);
  };
  const points = [...new Set(slots.map(({ colour }) => coarse(colour)))].map(toOklab);
  const centres = clusterColours(points, most, { starts: 2, rounds: 12 }).map(({ centre }) => centre);
  const owners = slots.map(({ colour }) => {
    const lab = toOklab(colour);
    return centres.reduce(
      (best, centre, index) => (deltaOk(lab, centre) < deltaOk(lab, centres[best]!) ? index : best),
      0,
    );
  });
  const kept = centres.flatMap((centre, index): (ColourSlot & { index: number })[] => {
    const members = slots.filter((_, at) => owners[at] === index);
    const nearest = members.reduce<ColourSlot | null>(
      (best, one) =>
        !best || deltaOk(toOklab(one.colour), centre) < deltaOk(toOklab(best.colour), centre) ? one : best,
      null,
    );
    return nearest ? [{ ...nearest, index }] : [];
  });
  const slotOf = new Map(kept.map(({ index, id }) => [index, id]));
  const to = new Map(slots.map(({ id }, at) => [id, slotOf.get(owners[at] ?? 0) ?? id]));
  const colourOf = new Map(kept.map(({ id, colour }) => [id, colour]));
  const furthest = Math.max(
    ...slots.map(({ id, colour }) => deltaE2000(colour, colourOf.get(to.get(id) ?? '') ?? colour)),
  );
  return {
    elements: elements.map((element) => recoloured(element, to)),
    slots: kept.map(({ id, colour }, index) => ({ id, name: `Colour ${index + 1}`, colour })),
    note: `Its ${slots.length} colours were merged to ${kept.length}, alike ones together; the furthest moved by ΔE2000 ${furthest.toFixed(1)}.`,
  };
}

function recoloured(element: DrawingElement, to: ReadonlyMap<string, string>): DrawingElement {
  const slot = (id: string): string => to.get(id) ?? id;
  const paint = (value: Paint | null): Paint | null => {
    if (value === null || typeof value === 'string') return value === null ? null : slot(value);
    return { ...value, stops: value.stops.map((stop) => ({ ...stop, slot: slot(stop.slot) })) };
  };
  const { fill, stroke } = element;
  return { ...element, fill: paint(fill), stroke: stroke && { ...stroke, slot: slot(stroke.slot) } };
}

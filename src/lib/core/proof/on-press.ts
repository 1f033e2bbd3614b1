import { VISIBLE_DELTA } from '../colour/press';
import type { Hex } from '../colour/parse';
import { allLayers, coloursOfInk, type DrawnShape, type DrawItem, type Layer } from '../draw/list';
import { inksOfItem } from '../draw/plates';
import { boxesMeet } from '../geom/box';
import type { ProofContext } from './context';
import { factsOf } from './facts';
import type { Found, ProofPlace } from './note';
import { sayPercent } from './say';

/** What a press makes of the colours of shapes, and where spot inks are not printed as they look. */
export function foundOnPress(
  shapes: readonly DrawnShape[],
  background: Hex | null,
  context: ProofContext,
): Found[] {
  const { inks, press } = context;
  if (!press && inks.none) return [];
  const found: Found[] = [];
  if (background !== null) found.push(...foundOfColour(background, null, context));
  for (const [at, shape] of shapes.entries())
    for (const layer of allLayers(shape)) {
      const place = { shape: shape.id, fill: layer.fill };
      for (const item of layer.items) found.push(...foundOfItem(item, place, context));
      if (blendsOverInks(shapes, at, layer, background, context))
        found.push({
          kind: 'inks',
          weight: 'look',
          says: 'Process colours blend with spot inks below them: plates are blended each by itself, so that it comes out otherwise than here.',
          figure: layer.blend,
          place,
          mend: null,
        });
    }
  return found;
}

function foundOfItem(item: DrawItem, place: ProofPlace, context: ProofContext): Found[] {
  const { inks } = context;
  switch (item.kind) {
    case 'picture':
      return [];
    case 'page':
      return item.list.shapes
        .flatMap(allLayers)
        .flatMap((layer) => layer.items.flatMap((one) => foundOfItem(one, place, context)));
    case 'path': {
      const colours = coloursOfInk(item.ink);
      if (colours.length > 1 && inks.has(colours) && inks.ofStops(colours) === null)
        return [mixed('A gradient between a spot ink and process colours', place)];
      return colours.flatMap((colour) => foundOfColour(colour, place, context));
    }
    case 'tiled': {
      const { pattern, colours } = item;
      const own = factsOf(pattern.scene).slots.flatMap((slot) => colours[slot] ?? []);
      if (inks.has(own) && inksOfItem(item, inks) !== inks)
        return [mixed(`“${pattern.name}” has pictures, shadows or mixed gradients, and`, place)];
      return own.flatMap((colour) => foundOfColour(colour, place, context));
    }
  }
}

const mixed = (what: string, place: ProofPlace): Found => ({
  kind: 'inks',
  weight: 'wrong',
  says: `${what} is printed in process colours, not in the ink.`,
  figure: '',
  place,
  mend: null,
});

function foundOfColour(colour: Hex, place: ProofPlace | null, { inks, press }: ProofContext): Found[] {
  if (!press || inks.of(colour)) return [];
  const { ink, delta } = press.view.of(colour);
  const found: Found[] = [];
  if (ink * 100 > press.inkLimit + 0.5)
    found.push({
      kind: 'ink',
      weight: 'wrong',
      says: `Colours take more ink than the ${press.inkLimit} % that the paper does.`,
      ...{ figure: sayPercent(ink), measure: -ink, place, mend: null },
    });
  if (delta > VISIBLE_DELTA)
    found.push({
      kind: 'gamut',
      weight: 'look',
      says: 'Colours are out of gamut: the press shows them visibly otherwise.',
      ...{ figure: `ΔE ${delta.toFixed(1)}`, measure: -delta, place, mend: null },
    });
  return found;
}

/** Whether a layer that blends has process colours and lies over what is printed in inks, as far as boxes tell. */
function blendsOverInks(
  shapes: readonly DrawnShape[],
  at: number,
  { fill, blend, items }: Layer,
  background: Hex | null,
  { inks }: ProofContext,
): boolean {
  if (blend === 'normal' || inks.none) return false;
  const own = shapes[at]!;
  if (items.every((item) => coloursOf(item)?.every((colour) => inks.of(colour)))) return false;
  if (background !== null && inks.of(background)) return true;
  const isInked = (layer: Layer): boolean => layer.items.some((item) => inks.has(coloursOf(item) ?? []));
  const first = own.layers.findIndex((layer) => layer.fill === fill);
  return (
    own.layers.slice(0, Math.max(0, first)).some(isInked) ||
    shapes.slice(0, at).some((other) => boxesMeet(other.box, own.box) && allLayers(other).some(isInked))
  );
}

/** The colours of an item; `null` for pictures and pages. */
function coloursOf(item: DrawItem): Hex[] | null {
  switch (item.kind) {
    case 'picture':
    case 'page':
      return null;
    case 'path':
      return coloursOfInk(item.ink);
    case 'tiled':
      return factsOf(item.pattern.scene).slots.flatMap((slot) => item.colours[slot] ?? []);
  }
}

import { BLEND_MODES, blendColour, type BlendMode } from '../colour/blend';
import { NO_INKS, PAPER, type Inked, type Inks, type SpotInk } from '../colour/inks';
import type { PictureLook } from '../colour/look';
import { hexOf, type Hex } from '../colour/parse';
import { NO_SHIFT } from '../colour/scheme';
import { colourOf } from '../colour/slots';
import { paintSlots } from '../recipe/edit';
import type { Paint } from '../recipe/recipe';
import type { UnitScene } from '../scene/unit';
import {
  coloursOfInk,
  itemsOf,
  listsIn,
  type DisplayList,
  type DrawItem,
  type DrawnShape,
  type GradientInk,
  type Ink,
  type Layer,
  type TiledItem,
} from './list';

/** A plate of a page: that of one spot ink, or all that is printed in process colours. */
export type Plate = SpotInk | 'process';

/** What leaves a plate as it is where an ink prints over others: no paint at all, as SVG says it. */
const NO_PAINT = 'none';

/** Recolours every picture to paper and leaves its opacities. */
const BLANK: PictureLook = {
  map: [{ colour: PAPER }, { colour: PAPER }],
  shift: NO_SHIFT,
  tint: null,
};

/**
 * A page as one of its plates. The plate of an ink is grey: paper is white, the full ink black; what is printed in others leaves paper
 * there, as inks do not lie on each other unless they are said to. That of process colours keeps their colours.
 */
export function plateOf(list: DisplayList, inks: Inks, plate: Plate): DisplayList {
  const by = new PlateWriter(inks, plate);
  return by.page({ ...list, background: list.background ?? PAPER });
}

/** Whether anything of a page is printed in an ink. */
export function isInked(list: DisplayList, inks: Inks): boolean {
  if (inks.none) return false;
  return listsIn(list).some(
    ({ list: { background, shapes } }) =>
      (background !== null && inks.has([background])) ||
      shapes.flatMap(itemsOf).some((item) => {
        if (item.kind === 'path') return inks.has(coloursOfInk(item.ink));
        return item.kind === 'tiled' && inks.has(Object.values(item.colours));
      }),
  );
}

/** The inks that a pattern's use is printed in: none where it has pictures, shadows, or gradients between an ink and other colours. */
export function inksOfItem({ pattern, colours }: Pick<TiledItem, 'pattern' | 'colours'>, inks: Inks): Inks {
  if (inks.none) return inks;
  const { flat, gradients } = paintsOf(pattern.scene);
  if (!flat) return NO_INKS;
  const mixed = gradients.some((slots) => {
    const shown = slots.map((slot) => colourOf(colours, slot));
    return inks.has(shown) && inks.ofStops(shown) === null;
  });
  return mixed ? NO_INKS : inks;
}

/** Whether a slot of a pattern prints over others where its ink does: one that gradients have does not. */
export const slotOverprints = (scene: UnitScene, slot: string): boolean =>
  !paintsOf(scene).gradients.some((slots) => slots.includes(slot));

type Paints = { flat: boolean; gradients: string[][] };
const known = new WeakMap<UnitScene, Paints>();

/** How a unit is painted: whether with nothing but paths, and with which slots in each of its gradients. */
function paintsOf(scene: UnitScene): Paints {
  const held = known.get(scene);
  if (held) return held;
  const elements = [
    ...scene.pieces.flatMap((piece) => piece.elements),
    ...scene.endless.map((line) => line.element),
  ];
  const flat = !scene.pieces.some(({ effects }) => effects) && !elements.some(({ picture }) => picture);
  const isGradient = (paint: Paint | null): paint is Exclude<Paint, string> =>
    paint !== null && typeof paint !== 'string';
  const gradients = elements.flatMap(({ fill }) => (isGradient(fill) ? [[...paintSlots(fill)]] : []));
  const found = { flat, gradients };
  known.set(scene, found);
  return found;
}

/**
 * How a layer blends on the plate of a spot ink: only modes that work on each component by itself and leave white white hold there
 * (ISO 32000-1, 11.7.4.2); others are as Normal.
 */
export const spotBlend = (mode: BlendMode): BlendMode => (SPOT_MODES.has(mode) ? mode : 'normal');
const WHOLE_COLOUR: readonly BlendMode[] = ['hue', 'saturation', 'color', 'luminosity'];
const SPOT_MODES = new Set(
  BLEND_MODES.filter(
    (mode) => !WHOLE_COLOUR.includes(mode) && blendColour(mode, [1, 1, 1], [1, 1, 1])[0] === 1,
  ),
);

class PlateWriter {
  constructor(
    private readonly inks: Inks,
    private readonly plate: Plate,
  ) {}

  page(list: DisplayList): DisplayList {
    const { background } = list;
    const flat = background === null ? null : this.colour(background, this.inks, false);
    return { ...list, background: flat, shapes: list.shapes.map((shape) => this.shape(shape)) };
  }

  private shape(shape: DrawnShape): DrawnShape {
    const { layers, stroke } = shape;
    return {
      ...shape,
      layers: this.layers(layers),
      stroke: stroke && { ...stroke, layers: this.layers(stroke.layers) },
    };
  }

  private layers(layers: readonly Layer[]): Layer[] {
    return layers.flatMap((layer) => {
      const items = layer.items.flatMap((item) => this.item(item) ?? []);
      const blend = this.plate === 'process' ? layer.blend : spotBlend(layer.blend);
      return items.length === 0 ? [] : [{ ...layer, items, blend }];
    });
  }

  private item(item: DrawItem): DrawItem | null {
    switch (item.kind) {
      case 'path': {
        const ink = this.ink(item.ink);
        return ink === NO_PAINT ? null : { ...item, ink };
      }
      case 'picture':
        return this.plate === 'process' ? item : { ...item, look: BLANK };
      case 'tiled':
        return this.tiled(item);
      case 'page':
        return { ...item, list: this.page(item.list) };
    }
  }

  private tiled(item: TiledItem): TiledItem {
    const { pattern, colours } = item;
    const { scene } = pattern;
    const wash = item.wash && this.gradient(item.wash);
    if (inksOfItem(item, this.inks) === this.inks) {
      const plated = Object.entries(colours).map(([slot, colour]) => {
        // Under a gradient the motifs say where it is, so that none of them may be left out.
        const alone = !wash && slotOverprints(scene, slot);
        return [slot, this.colour(colour, this.inks, alone)] as const;
      });
      return { ...item, wash, colours: Object.fromEntries(plated) };
    }
    if (this.plate === 'process') return { ...item, wash };
    const pieces = scene.pieces.map((piece) => ({ ...piece, effects: null }));
    return {
      ...item,
      wash,
      pattern: { ...pattern, key: `${pattern.key} flat`, scene: { ...scene, pieces } },
      colours: Object.fromEntries(Object.keys(colours).map((slot) => [slot, PAPER])),
      look: BLANK,
    };
  }

  private ink(ink: Ink): Ink {
    return typeof ink === 'string' ? this.colour(ink, this.inks, true) : this.gradient(ink);
  }

  private gradient(gradient: GradientInk): GradientInk {
    const held = this.inks.ofStops(coloursOfInk(gradient));
    const inks = held ? this.inks : NO_INKS;
    const stops = gradient.stops.map((stop) => ({ ...stop, colour: this.colour(stop.colour, inks, false) }));
    return { ...gradient, stops };
  }

  /** What a colour is on the plate; `alone` is true where it can print over others. */
  private colour(colour: Hex, inks: Inks, alone: boolean): Hex {
    const inked = inks.of(colour);
    if (this.plate === 'process') {
      if (!inked) return colour;
    } else if (inked?.ink.name === this.plate.name) return greyOf(inked);
    return inked?.ink.overprint && alone ? NO_PAINT : PAPER;
  }
}

function greyOf({ tint }: Inked): Hex {
  const grey = 255 * (1 - tint);
  return hexOf([grey, grey, grey]);
}

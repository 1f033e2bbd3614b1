import { followLook } from '../colour/look';
import type { Colourway } from '../colour/colourway';
import { follow, followAll, linksOf, mapSame, retinted, tintOf, type Links, type Tint } from '../colour/tint';
import type { Fill, PatternFill } from './fill';
import { followGradient, recolourGradient } from './gradient';
import { mapFills, type Layout, type Shape } from './layout';
import type { Recipe } from './recipe';

/**
 * Documents keep the colour that a link had when they were saved. These put the present colours in their place and
 * answer the same object where nothing changes, so that what is drawn from it can be kept.
 */

/** A recipe with the present colours of its linked slots. */
export function followRecipe<T extends Recipe>(recipe: T, links: Links): T {
  const slots = mapSame(recipe.slots, (slot) => follow(slot, links));
  return slots === recipe.slots ? recipe : { ...recipe, slots };
}

/** A colourway with the present colours of its links. */
export function followColourway(way: Colourway, links: Links): Colourway {
  const colours = followAll(way.colours, links);
  return colours === way.colours ? way : { ...way, colours };
}

/** A fill with the present colours of its links. */
export function followFill(fill: Fill, links: Links): Fill {
  switch (fill.kind) {
    case 'colour':
      return follow(fill, links);
    case 'gradient': {
      const gradient = followGradient(fill.gradient, links);
      return gradient === fill.gradient ? fill : { ...fill, gradient };
    }
    case 'picture':
    case 'layout':
      return fill;
    case 'pattern':
      return followPatternFill(fill, links);
  }
}

function followPatternFill(fill: PatternFill, links: Links): PatternFill {
  const colours = followAll(fill.colours, links);
  const ground = fill.ground.kind === 'colour' ? follow(fill.ground, links) : fill.ground;
  const look = fill.look && followLook(fill.look, links);
  const wash = fill.wash && followGradient(fill.wash, links);
  if (colours === fill.colours && ground === fill.ground && look === fill.look && wash === fill.wash)
    return fill;
  return { ...fill, colours, ground, wash, ...(look ? { look } : {}) };
}

/** A shape with the present colours of its fills. */
export function followShape(shape: Shape, links: Links): Shape {
  return mapFills(shape, (fill) => followFill(fill, links));
}

/** A layout with the present colours of its background and all fills. */
export function followLayout<T extends Layout>(layout: T, links: Links): T {
  const shapes = mapSame(layout.shapes, (shape) => followShape(shape, links));
  const background =
    (layout.backgroundLink ? links.get(layout.backgroundLink) : undefined) ?? layout.background;
  return shapes === layout.shapes && background === layout.background
    ? layout
    : { ...layout, shapes, background };
}

/** The tints of a fill that may follow a palette: its colour, or ground, slots and look. */
function fillTints(fill: Fill): Tint[] {
  if (fill.kind === 'colour') return [fill];
  if (fill.kind === 'gradient') return [...fill.gradient.stops];
  if (fill.kind === 'picture' || fill.kind === 'layout') return [];
  const { ground, colours, look, wash } = fill;
  return [
    ...(wash ? wash.stops : []),
    ...(ground.kind === 'colour' ? [ground] : []),
    ...Object.values(colours),
    ...(look ? [...look.map, ...(look.tint ? [look.tint] : [])] : []),
  ];
}

/** The ids of the palette colours that a fill follows, each once. */
export const fillLinks = (fill: Fill): string[] => linksOf(fillTints(fill));

/** A fill with every one of its colours changed; `change` answers the same object to leave one. */
export function recolourFill(fill: Fill, change: (tint: Tint) => Tint): Fill {
  if (fill.kind === 'colour') return retint(fill, change);
  if (fill.kind === 'gradient') return { ...fill, gradient: recolourGradient(fill.gradient, change) };
  if (fill.kind === 'picture' || fill.kind === 'layout') return fill;
  return recolourPatternFill(fill, change);
}

function recolourPatternFill(fill: PatternFill, change: (tint: Tint) => Tint): PatternFill {
  const { ground, colours, look, wash } = fill;
  const next: PatternFill = {
    ...fill,
    wash: wash && recolourGradient(wash, change),
    ground: ground.kind === 'colour' ? retint(ground, change) : ground,
    colours: Object.fromEntries(Object.entries(colours).map(([slot, tint]) => [slot, change(tint)])),
  };
  if (!look) return next;
  return {
    ...next,
    look: { ...look, map: look.map.map(change), tint: look.tint && retint(look.tint, change) },
  };
}

function retint<T extends Tint>(holder: T, change: (tint: Tint) => Tint): T {
  const before = tintOf(holder.colour, holder.link);
  const after = change(before);
  return after === before ? holder : retinted(holder, after.colour, after.link);
}

import type { PatternDetail } from '$lib/contract/data';
import { clamp, roundTo } from '$lib/core/num/tolerance';
import type { Hex } from '$lib/core/colour/parse';
import { colourOf, resolveSlots, type ColourSlot } from '$lib/core/colour/slots';
import { CSS_PPI } from '$lib/core/num/length';
import { regionFor } from '$lib/core/lattice/fold';
import type { Point } from '$lib/core/geom/point';
import { sidesOf, type Corners } from '$lib/core/geom/corners';
import { cornersOf } from '$lib/core/picture/straight';
import { checkRecipe } from '$lib/core/recipe/check';
import { LIMITS } from '$lib/core/recipe/limits';
import {
  freshBand,
  freshPictured,
  freshTextured,
  groupOf,
  grows,
  madeSize,
  PICTURED_LIMITS,
  slotIdsOf,
  slotsOfTexture,
  texturePicture,
  type Few,
  type Pictured,
  type PictureSize,
  type Region,
  type SourcePicture,
} from '$lib/core/recipe/pictured';
import { RECIPE_VERSION, type PicturedRecipe, type Recipe } from '$lib/core/recipe/recipe';
import type { Texture } from '$lib/core/recipe/texture';
import { PatternKeeper } from '../bench/keeper.svelte';

/**
 * A fresh pattern from a picture; `density` is how many CSS px one of its pixels takes. A picture that `repeats` by
 * itself is taken whole, and nothing is done to its edges.
 */
export function freshRecipe(source: SourcePicture, density: number, repeats = false): PicturedRecipe {
  const fresh = freshPictured(source);
  const { width, height } = source;
  const whole = { x: width / 2, y: height / 2, width, height, turn: 0 };
  const pictured = repeats ? { ...fresh, region: whole, join: { ...fresh.join, on: false } } : fresh;
  return sized(
    {
      kind: 'pictured',
      version: RECIPE_VERSION,
      measure: 'mm',
      pictured,
      lay: { kind: 'straight' },
      unit: { width: 1, height: 1 },
      ground: { kind: 'clear' },
      slots: [],
    },
    density,
  );
}

/** A fresh pattern from a texture, in its own colours; `density` is how many CSS px one of its pixels takes. */
export function freshTexturedRecipe(texture: Texture, density = 0.5): PicturedRecipe {
  const pictured = freshTextured(texture);
  const fresh = freshRecipe(pictured.source, density, true);
  return sized({ ...fresh, pictured, slots: slotsOfTexture(texture) }, density);
}

/** The recipe with its unit as large as `density` CSS px for each pixel that is made. */
function sized(recipe: PicturedRecipe, density: number): PicturedRecipe {
  const { width, height } = madeSize(recipe.pictured);
  const { least, most } = LIMITS.unitSide;
  // What does not fit the limits keeps its proportion at another resolution.
  const fit = clamp(density, least / Math.min(width, height), most / Math.max(width, height));
  return { ...recipe, unit: { width: roundTo(width * fit, 6), height: roundTo(height * fit, 6) } };
}

/** CSS px of the unit to one pixel that is made. */
export const densityOf = ({ unit, pictured }: PicturedRecipe): number =>
  unit.width / madeSize(pictured).width;

/** Pixels per inch at which a unit is seen at its own size. */
export const ppiOf = (recipe: PicturedRecipe): number => CSS_PPI / densityOf(recipe);

/** A region whose sides are whole px of the picture, and which lies on whole pixels where it is not turned. */
function tidyRegion(region: Region, aspect: number | null): Region {
  const { least, most } = PICTURED_LIMITS.region;
  const width = clamp(Math.round(region.width), least, most);
  const height = aspect === null ? clamp(Math.round(region.height), least, most) : width * aspect;
  if (region.corners) {
    const mean = (of: (corner: Point) => number): number =>
      roundTo(region.corners!.reduce((sum, corner) => sum + of(corner), 0) / 4, 2);
    return { ...region, width, height, turn: 0, x: mean(({ x }) => x), y: mean(({ y }) => y) };
  }
  if (region.turn % 90 !== 0)
    return { ...region, x: roundTo(region.x, 2), y: roundTo(region.y, 2), width, height };
  const snap = (middle: number, side: number): number => Math.round(middle - side / 2) + side / 2;
  return { ...region, x: snap(region.x, width), y: snap(region.y, height), width, height };
}

/** The region with one of its four corners somewhere else; what is made is as large as what they show. */
export function withCorner(from: Region, index: number, to: Point, keepsProportion: boolean): Region {
  if (!from.corners) return from;
  const corners = from.corners.map((corner, at) =>
    at === index ? { x: roundTo(to.x, 1), y: roundTo(to.y, 1) } : corner,
  ) as unknown as Corners;
  const sides = sidesOf(corners);
  const factor = Math.sqrt((sides.width * sides.height) / (from.width * from.height));
  const size = keepsProportion ? { width: from.width * factor, height: from.height * factor } : sides;
  return { ...from, ...size, corners };
}

/** Everything that the picture view does to its pattern. */
export class PictureEditor extends PatternKeeper {
  readonly pictured: PicturedRecipe = $derived.by(() => asPictured(this.recipe));
  /** The colours of its slots, in the order of what they stand for. */
  readonly slotColours: Hex[] = $derived(
    slotIdsOf(this.pictured.pictured).map((id) => colourOf(resolveSlots(this.pictured.slots, {}), id)),
  );
  readonly problems = $derived.by(() => checkRecipe(this.recipe));
  /** Whether the region keeps its proportion while it is sized. */
  square = $state(true);

  constructor(pattern: PatternDetail | null, fresh: PicturedRecipe) {
    super(pattern, pattern?.draft ?? pattern?.recipe ?? fresh);
    const { width, height } = this.pictured.pictured.region;
    this.square = Math.abs(width - height) < 1e-6;
  }

  private get settled(): PicturedRecipe {
    return asPictured(this.history.settled);
  }

  /** Changes the recipe from how it was before the gesture: shown with `live`, else kept as one step. */
  change(change: (from: PicturedRecipe) => PicturedRecipe, live = false): void {
    const next = change(this.settled);
    if (live) this.history.live(next);
    else this.history.commit(next);
  }

  /** Changes the steps; the unit keeps its resolution. */
  steps(change: (from: Pictured) => Pictured, live = false): void {
    this.change((from) => {
      const pictured = change(from.pictured);
      const resized = sized({ ...from, pictured }, densityOf(from));
      return pictured.symmetry.on || grows(pictured) ? { ...resized, lay: { kind: 'straight' } } : resized;
    }, live);
  }

  /** Puts the region somewhere else, or makes it another size: always one that its symmetry can take. */
  region(change: (from: Region) => Region, live = false): void {
    this.steps((from) => withRegion(from, change(from.region)), live);
  }

  /** Makes the region as many whole periods of the picture as fit it best, upright. */
  toPeriods({ across, down }: { across: number | null; down: number | null }): void {
    const whole = (side: number, period: number | null): number =>
      period === null ? side : Math.max(1, Math.round(side / period)) * period;
    this.square = false;
    this.region(({ corners: _, ...from }) => ({
      ...from,
      turn: 0,
      width: whole(from.width, across),
      height: whole(from.height, down),
    }));
  }

  /** Has the region show what four corners say, made square-on, or a rectangle again. */
  setCorners(on: boolean): void {
    this.region(({ corners: held, ...from }) => (on ? { ...from, corners: held ?? cornersOf(from) } : from));
  }

  /** Puts one of the corners somewhere else; what is made is as large as what they show. */
  moveCorner(index: number, to: Point, live = false): void {
    this.region((from) => withCorner(from, index, to, this.square), live);
  }

  setSymmetry(on: boolean, group = this.pictured.pictured.symmetry.group): void {
    this.steps((from) => {
      const next = { ...from, symmetry: { ...from.symmetry, on, group } };
      return { ...next, region: regionFor(next.region, groupOf(next)) };
    });
  }

  /**
   * Tells the repeat by few colours, or no more. What stood for a colour as it was found follows when others are found;
   * what a person chose stays.
   */
  setFew(few: Few): void {
    this.change((from) => {
      const last = from.pictured.few?.colours ?? [];
      const held = new Map(from.slots.map((slot) => [slot.id, slot]));
      const pictured = { ...from.pictured, few };
      const slots = slotIdsOf(pictured).map((id, index): ColourSlot => {
        const slot = held.get(id);
        const found = few.colours[index]!;
        if (slot && slot.colour !== last[index]) return slot;
        return { ...(slot ?? { id, name: `Colour ${index + 1}` }), colour: found };
      });
      return { ...from, pictured, slots };
    });
  }

  setSlot(id: string, change: (slot: ColourSlot) => ColourSlot, live = false): void {
    this.change(
      (from) => ({ ...from, slots: from.slots.map((slot) => (slot.id === id ? change(slot) : slot)) }),
      live,
    );
  }

  /** Other numbers of the texture; another kind comes in its own colours. All of it is taken, at the same resolution. */
  setTexture(change: (from: Texture) => Texture, live = false): void {
    this.change((from) => {
      const before = from.pictured.source.texture;
      if (!before) return from;
      const texture = change(before);
      if (texture.kind !== before.kind) return freshTexturedRecipe(texture, densityOf(from));
      const { width, height } = texture;
      const whole = { x: width / 2, y: height / 2, width, height, turn: 0 };
      const resized = width !== before.width || height !== before.height;
      const next = { ...from.pictured, source: texturePicture(texture) };
      return sized({ ...from, pictured: resized ? withRegion(next, whole) : next }, densityOf(from));
    }, live);
  }

  setSquare(square: boolean): void {
    this.square = square;
    const { region } = this.pictured.pictured;
    if (square && !this.pictured.pictured.symmetry.on && region.width !== region.height) {
      const side = Math.min(region.width, region.height);
      this.region((from) => ({ ...from, width: side, height: side }));
    }
  }

  /** Makes the unit so wide, its proportion kept. */
  setWidth(width: number, live = false): void {
    this.change((from) => sized(from, width / madeSize(from.pictured).width), live);
  }

  setHeight(height: number, live = false): void {
    this.change((from) => sized(from, height / madeSize(from.pictured).height), live);
  }

  /** Has the unit resampled, or made of the pixels that it has; it stays as large as it is. */
  setSize(change: (from: PictureSize) => PictureSize, live = false): void {
    this.change((from) => {
      const { pictured } = from;
      const held = pictured.size ?? {
        on: false,
        width: madeSize(pictured).width,
        filter: 'lanczos' as const,
      };
      const next = { ...from, pictured: { ...pictured, size: change(held) } };
      return sized(next, from.unit.width / madeSize(next.pictured).width);
    }, live);
  }

  setPpi(ppi: number, live = false): void {
    this.change((from) => sized(from, CSS_PPI / ppi), live);
  }
}

/** The steps with another region; a band that no longer fits into it becomes as wide as one can be. */
function withRegion(from: Pictured, region: Region): Pictured {
  const next = regionFor(tidyRegion(region, null), groupOf(from));
  const { source } = from;
  const kept = next.corners
    ? next
    : { ...next, x: clamp(next.x, 0, source.width), y: clamp(next.y, 0, source.height) };
  const most = Math.floor(Math.min(kept.width, kept.height) / 2) * 2;
  const band = from.join.band > most ? freshBand(kept) : from.join.band;
  return { ...from, region: kept, join: { ...from.join, band } };
}

function asPictured(recipe: Recipe): PicturedRecipe {
  if (recipe.kind !== 'pictured') throw new Error('This view shows patterns that are made from a picture.');
  return recipe;
}

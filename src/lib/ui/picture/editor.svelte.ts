import type { PatternDetail } from '$lib/contract/data';
import type { Hex } from '$lib/core/colour/parse';
import { colourOf, resolveSlots, type ColourSlot } from '$lib/core/colour/slots';
import { CSS_PPI } from '$lib/core/num/length';
import { regionFor } from '$lib/core/lattice/fold';
import type { Point } from '$lib/core/geom/point';
import { cornersOf } from '$lib/core/picture/straight';
import { checkRecipe } from '$lib/core/recipe/check';
import { madeSize } from '$lib/core/recipe/made';
import {
  groupOf,
  slotIdsOf,
  type Few,
  type Pictured,
  type PictureSize,
  type Region,
} from '$lib/core/recipe/pictured';
import type { PicturedRecipe, Recipe } from '$lib/core/recipe/recipe';
import type { Texture } from '$lib/core/recipe/texture';
import { PatternKeeper } from '../bench/keeper.svelte';
import { sized, withCorner, withRegion, withSteps, withTexture } from './pictured-recipes';

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
    this.change((from) => withSteps(from, change), live);
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
    this.change((from) => withTexture(from, change), live);
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

function asPictured(recipe: Recipe): PicturedRecipe {
  if (recipe.kind !== 'pictured') throw new Error('This view shows patterns that are made from a picture.');
  return recipe;
}

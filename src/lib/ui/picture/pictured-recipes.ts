import { clamp, roundTo } from '$lib/core/num/tolerance';
import { CSS_PPI } from '$lib/core/num/length';
import { regionFor } from '$lib/core/lattice/fold';
import type { Point } from '$lib/core/geom/point';
import { sidesOf, type Corners } from '$lib/core/geom/corners';
import { LIMITS } from '$lib/core/recipe/limits';
import { madeSize } from '$lib/core/recipe/made';
import {
  freshBand,
  freshPictured,
  freshTextured,
  groupOf,
  grows,
  PICTURED_LIMITS,
  slotsOfTexture,
  texturePicture,
  type Pictured,
  type Region,
  type SourcePicture,
} from '$lib/core/recipe/pictured';
import { RECIPE_VERSION, type PicturedRecipe } from '$lib/core/recipe/recipe';
import type { Texture } from '$lib/core/recipe/texture';

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
export function sized(recipe: PicturedRecipe, density: number): PicturedRecipe {
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

/** The steps with another region; a band that no longer fits into it becomes as wide as one can be. */
export function withRegion(from: Pictured, region: Region): Pictured {
  const next = regionFor(tidyRegion(region, null), groupOf(from));
  const { source } = from;
  const kept = next.corners
    ? next
    : { ...next, x: clamp(next.x, 0, source.width), y: clamp(next.y, 0, source.height) };
  const most = Math.floor(Math.min(kept.width, kept.height) / 2) * 2;
  const band = from.join.band > most ? freshBand(kept) : from.join.band;
  return { ...from, region: kept, join: { ...from.join, band } };
}

/** Other steps; the unit keeps its resolution, and is laid straight where they ask for that. */
export function withSteps(from: PicturedRecipe, change: (from: Pictured) => Pictured): PicturedRecipe {
  const pictured = change(from.pictured);
  const resized = sized({ ...from, pictured }, densityOf(from));
  return pictured.symmetry.on || grows(pictured) ? { ...resized, lay: { kind: 'straight' } } : resized;
}

/** Other numbers of the texture; another kind comes in its own colours. All of it is taken, at the same resolution. */
export function withTexture(from: PicturedRecipe, change: (from: Texture) => Texture): PicturedRecipe {
  const before = from.pictured.source.texture;
  if (!before) return from;
  const texture = change(before);
  if (texture.kind !== before.kind) return freshTexturedRecipe(texture, densityOf(from));
  const { width, height } = texture;
  const whole = { x: width / 2, y: height / 2, width, height, turn: 0 };
  const resized = width !== before.width || height !== before.height;
  const next = { ...from.pictured, source: texturePicture(texture) };
  return sized({ ...from, pictured: resized ? withRegion(next, whole) : next }, densityOf(from));
}

import { pictureSides } from '$lib/core/scene/pictures';
import type { UnitScene } from '$lib/core/scene/unit';
import { PICTURE_SIDES, smallerPictures } from '$lib/core/svg/paint';

/** How large each picture was shown so far in one view: zoomed out again it stays, since it is here already. */
export type ShownSides = Map<string, number>;

/**
 * A drawing of a pattern with its pictures as large as they are seen, `scale` px of the screen to one of the pattern:
 * forty photographs of 2000 px would take gigabytes otherwise, and be made smaller anew for every frame.
 */
export function seenSmaller(svg: string, scene: UnitScene, scale: number, shown: ShownSides): string {
  if (!scene.sampled) return svg;
  const density = typeof devicePixelRatio === 'number' ? devicePixelRatio : 1;
  const sides = new Map<string, number>();
  for (const [asset, { seen, own }] of pictureSides(scene)) {
    const wanted = PICTURE_SIDES.find((side) => side >= seen * scale * density) ?? Infinity;
    const side = Math.max(shown.get(asset) ?? 0, wanted);
    shown.set(asset, side);
    if (side < own) sides.set(asset, side);
  }
  return smallerPictures(svg, sides);
}

/** A scale in steps of a quarter of an octave, upward, so that a drawing is not made anew for every step of a zoom. */
export const steppedScale = (scale: number): number =>
  2 ** (Math.ceil(Math.log2(Math.max(scale, 1e-6)) * 4) / 4);

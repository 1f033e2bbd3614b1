import { longestScale, meanScale, multiply } from '../geom/affine';
import type { PicturePaint } from '../recipe/recipe';
import type { UnitScene } from './unit';

/** The pictures that a pattern draws, each as often as it does. */
export const drawnPictures = (scene: UnitScene): PicturePaint[] =>
  scene.pieces.flatMap((piece) => piece.elements.flatMap(({ picture }) => picture ?? []));

/** Whether a pattern shows numbered pictures, which are fetched anew for other colours. */
export const isNumbered = (scene: UnitScene): boolean =>
  scene.sampled && drawnPictures(scene).some(({ slots }) => slots !== undefined);

/**
 * How large each picture of a pattern lies in it at most: px of the pattern along its longer side, and how many it has of
 * its own.
 */
export function pictureSides(scene: UnitScene): Map<string, { seen: number; own: number }> {
  const sides = new Map<string, { seen: number; own: number }>();
  for (const { elements, matrix } of scene.pieces)
    for (const { picture } of elements) {
      if (!picture) continue;
      const own = Math.max(picture.width, picture.height);
      const seen = own * longestScale(multiply(matrix, picture.matrix));
      sides.set(picture.asset, { own, seen: Math.max(seen, sides.get(picture.asset)?.seen ?? 0) });
    }
  return sides;
}

/** The assets of the pictures that a pattern draws, each once. */
export const assetsOf = (scene: UnitScene): string[] => [
  ...new Set(drawnPictures(scene).map(({ asset }) => asset)),
];

/** How much the coarsest picture of a pattern is enlarged in the unit: px of the pattern to one of its pixels; `null` without pictures. */
export function coarsestPicture(scene: UnitScene): number | null {
  const scales = scene.pieces.flatMap((piece) =>
    piece.elements.flatMap(({ picture }) =>
      picture ? [meanScale(multiply(piece.matrix, picture.matrix))] : [],
    ),
  );
  return scales.length === 0 ? null : Math.max(...scales);
}

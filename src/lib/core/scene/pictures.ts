import { isPlainLook, type PictureLook } from '../colour/look';
import { multiply } from '../geom/affine';
import { allPaints, meanScale, type LayoutScene } from './layout';
import type { UnitScene } from './unit';

/** The assets of the pictures that a pattern draws, each once. */
export function assetsOf(scene: UnitScene): string[] {
  const found = scene.pieces.flatMap((piece) =>
    piece.elements.flatMap((element) => (element.picture ? [element.picture.asset] : [])),
  );
  return [...new Set(found)];
}

/** The pictures that the drawings of a layout show, each with how it is recoloured; those of one plane are sampled instead. */
export function shownPictures(scene: LayoutScene): { asset: string; look: PictureLook | null }[] {
  return scene.shapes.flatMap((shape) =>
    allPaints(shape).flatMap((paint) => {
      if (paint.kind !== 'pattern' || paint.pattern.scene.plane) return [];
      const look = paint.look && !isPlainLook(paint.look) ? paint.look : null;
      return assetsOf(paint.pattern.scene).map((asset) => ({ asset, look }));
    }),
  );
}

/** How much the coarsest picture of a pattern is enlarged in the unit: px of the pattern to one of its pixels; `null` without pictures. */
export function coarsestPicture(scene: UnitScene): number | null {
  const scales = scene.pieces.flatMap((piece) =>
    piece.elements.flatMap(({ picture }) =>
      picture ? [meanScale(multiply(piece.matrix, picture.matrix))] : [],
    ),
  );
  return scales.length === 0 ? null : Math.max(...scales);
}

import { isPlainLook, type PictureLook } from '../colour/look';
import { allPaints, type LayoutScene } from './layout';
import type { UnitScene } from './unit';

/** The assets of the pictures that a pattern draws, each once. */
export function assetsOf(scene: UnitScene): string[] {
  const found = scene.pieces.flatMap((piece) =>
    piece.elements.flatMap((element) => (element.picture ? [element.picture.asset] : [])),
  );
  return [...new Set(found)];
}

/** The pictures that a layout's fills recolour. */
export function recolouredPictures(scene: LayoutScene): { asset: string; look: PictureLook }[] {
  return scene.shapes.flatMap((shape) =>
    allPaints(shape).flatMap((paint) => {
      if (paint.kind !== 'pattern' || !paint.look || isPlainLook(paint.look)) return [];
      const { look } = paint;
      return assetsOf(paint.pattern.scene).map((asset) => ({ asset, look }));
    }),
  );
}

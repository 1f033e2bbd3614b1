import { elementBox } from './motif';
import type { UnitScene } from './unit';

/** Lines thinner than this break up in print: 0.25 pt in px (common practice, no source). */
export const THINNEST_LINE = 0.25 * (96 / 72);

/** Pieces with a stroke, or a whole element, thinner than `limit` px at the pattern's own size. */
export function thinPieces(scene: UnitScene, limit = THINNEST_LINE): { piece: string; width: number }[] {
  const found = new Map<string, number>();
  const take = (piece: string, width: number): void => {
    if (width < limit - 1e-9) found.set(piece, Math.min(width, found.get(piece) ?? Infinity));
  };
  for (const { id, elements, matrix } of scene.pieces) {
    if (id === 'ground') continue;
    const scale = Math.sqrt(Math.abs(matrix.a * matrix.d - matrix.b * matrix.c));
    for (const element of elements) {
      if (element.stroke) take(id, element.stroke.width * scale);
      else {
        const box = elementBox(element, matrix);
        if (box) take(id, Math.min(box.width, box.height));
      }
    }
  }
  for (const { element } of scene.endless) if (element.stroke) take('lines', element.stroke.width);
  return [...found].map(([piece, width]) => ({ piece, width }));
}

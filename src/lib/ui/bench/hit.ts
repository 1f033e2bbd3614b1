import { apply, invert, multiply, translation } from '$lib/core/geom/affine';
import type { Point } from '$lib/core/geom/point';
import { regionOfBox } from '$lib/core/lattice/meet';
import type { DrawingElement } from '$lib/core/recipe/recipe';
import type { LaidPiece, UnitScene } from '$lib/core/scene/unit';
import { piecesOver } from '$lib/core/scene/unit';

type Drawn = Pick<DrawingElement, 'd' | 'fill' | 'fillRule' | 'stroke'> & { picture?: unknown };

/** The frontmost piece whose ink lies at `point` (pattern space), wherever on the plane; `reach` px count as a hit on thin lines. */
export function pieceAt(scene: UnitScene, point: Point, reach: number): LaidPiece | null {
  const canvas = document.createElement('canvas').getContext('2d');
  if (!canvas) return null;
  const region = regionOfBox({ x: point.x - reach, y: point.y - reach, width: 2 * reach, height: 2 * reach });
  const laid = piecesOver(scene, region, reach).filter(({ piece }) => piece.id !== 'ground');
  for (const candidate of laid.reverse()) {
    const { piece, offset } = candidate;
    const inverse = invert(multiply(translation(offset.x, offset.y), piece.matrix));
    if (!inverse) continue;
    const local = apply(inverse, point);
    const scale = Math.sqrt(Math.abs(inverse.a * inverse.d - inverse.b * inverse.c));
    if (piece.elements.some((element) => hits(canvas, element, local, reach * scale))) return candidate;
  }
  return null;
}

/** The index of the frontmost element of a drawing at `point`, or `null`. */
export function elementAt(elements: readonly DrawingElement[], point: Point, reach: number): number | null {
  const canvas = document.createElement('canvas').getContext('2d');
  if (!canvas) return null;
  for (let index = elements.length - 1; index >= 0; index -= 1) {
    const element = elements[index];
    if (element && hits(canvas, element, point, reach)) return index;
  }
  return null;
}

function hits(canvas: CanvasRenderingContext2D, element: Drawn, at: Point, reach: number): boolean {
  const path = new Path2D(element.d);
  const filled = element.fill !== null || Boolean(element.picture);
  if (filled && canvas.isPointInPath(path, at.x, at.y, element.fillRule)) return true;
  canvas.lineWidth = (element.stroke?.width ?? 0) + 2 * reach;
  return canvas.isPointInStroke(path, at.x, at.y);
}

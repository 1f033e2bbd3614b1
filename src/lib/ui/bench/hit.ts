import { apply, invert, multiply, translation } from '$lib/core/geom/affine';
import type { Point } from '$lib/core/geom/point';
import { regionOfBox } from '$lib/core/lattice/meet';
import type { LaidPiece, UnitScene } from '$lib/core/scene/unit';
import { piecesOver } from '$lib/core/scene/unit';

/** The frontmost piece whose ink lies at `point` (pattern space), wherever on the plane; `reach` px count as a hit on thin lines. */
export function pieceAt(scene: UnitScene, point: Point, reach: number): LaidPiece | null {
  const canvas = document.createElement('canvas').getContext('2d');
  if (!canvas) return null;
  const region = regionOfBox({ x: point.x - reach, y: point.y - reach, width: 2 * reach, height: 2 * reach });
  const laid = piecesOver(scene, region, reach);
  for (const candidate of laid.reverse()) if (hits(canvas, candidate, point, reach)) return candidate;
  return null;
}

function hits(
  canvas: CanvasRenderingContext2D,
  { piece, offset }: LaidPiece,
  point: Point,
  reach: number,
): boolean {
  const inverse = invert(multiply(translation(offset.x, offset.y), piece.matrix));
  if (!inverse) return false;
  const local = apply(inverse, point);
  const grow = 2 * reach * Math.sqrt(Math.abs(inverse.a * inverse.d - inverse.b * inverse.c));
  return piece.elements.some((element) => {
    const path = new Path2D(element.d);
    if (element.fill !== null && canvas.isPointInPath(path, local.x, local.y, element.fillRule)) return true;
    canvas.lineWidth = (element.stroke?.width ?? 0) + grow;
    return canvas.isPointInStroke(path, local.x, local.y);
  });
}

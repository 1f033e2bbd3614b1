import type { Point } from '$lib/core/geom/point';
import type { SeenCell } from '$lib/core/mockup/seen';

/** How a view lies on its canvas: px of the canvas to a mm, and where the object's own origin is. */
export type ObjectPlace = { scale: number; x: number; y: number };

/** What is drawn on the sheet, `px` of the picture to a mm; `bleed` px of it lie beyond the sheet on each side. */
export type SheetPicture = { picture: CanvasImageSource; px: number; bleed: number };

/** Neighbours are drawn over each other by so many px, so that no line is left between them. */
const OVERLAP = 0.7;
/** How dark what lies in the shade is. */
const SHADE = 0.42;

/**
 * Paints an object with what is drawn on its sheet; what nothing is printed on is as pale as its paper. Light and shade are
 * painted on a `shade` of their own and laid over it: what is drawn over its neighbour's edge then has its own shade there.
 */
export function paintObject(
  context: CanvasRenderingContext2D,
  shade: CanvasRenderingContext2D,
  cells: readonly SeenCell[],
  { picture, px, bleed }: SheetPicture,
  { scale, x, y }: ObjectPlace,
): void {
  const put = (point: Point): Point => ({ x: x + point.x * scale, y: y + point.y * scale });
  shade.canvas.width = context.canvas.width;
  shade.canvas.height = context.canvas.height;
  for (const { corners, from, light, inside } of cells) {
    const to = corners.map(put);
    if (inside || from.length === 0) {
      trace(context, grown(to));
      context.fillStyle = PAPER;
      context.fill();
    } else {
      const source = from.map((point) => ({ x: point.x * px + bleed, y: point.y * px + bleed }));
      const whole = isParallelogram(source) && isParallelogram(to);
      for (const part of whole ? WHOLE : TRIANGLES)
        warp(
          context,
          picture,
          part.map((at) => source[at]!),
          part.map((at) => to[at]!),
        );
    }
    trace(shade, grown(to));
    const grey = Math.round(255 * (1 - SHADE * (1 - light)));
    shade.fillStyle = `rgb(${grey} ${grey} ${grey})`;
    shade.fill();
  }
  context.save();
  context.globalCompositeOperation = 'multiply';
  context.drawImage(shade.canvas, 0, 0);
  context.restore();
}

const PAPER = '#f3efe6';
/** The corners that a cell is laid by: all at once, or in two triangles, since that of a cone is narrower at one end. */
const WHOLE = [[0, 1, 2, 3]];
const TRIANGLES = [
  [0, 1, 2],
  [0, 2, 3],
];

const isParallelogram = ([a, b, c, d]: readonly Point[]): boolean =>
  Math.abs(a!.x + c!.x - b!.x - d!.x) < 0.01 && Math.abs(a!.y + c!.y - b!.y - d!.y) < 0.01;

function trace(context: CanvasRenderingContext2D, points: readonly Point[]): void {
  context.beginPath();
  points.forEach(({ x, y }, index) => (index === 0 ? context.moveTo(x, y) : context.lineTo(x, y)));
  context.closePath();
}

/** A convex outline with each of its sides moved out by the overlap. */
function grown(points: readonly Point[]): Point[] {
  const count = points.length;
  const twice = points.reduce((sum, { x, y }, index) => {
    const next = points[(index + 1) % count]!;
    return sum + x * next.y - next.x * y;
  }, 0);
  const sign = twice < 0 ? -1 : 1;
  const out = points.map((from, index): Point => {
    const to = points[(index + 1) % count]!;
    const far = Math.hypot(to.x - from.x, to.y - from.y) || 1;
    return { x: (sign * (to.y - from.y)) / far, y: (-sign * (to.x - from.x)) / far };
  });
  return points.map(({ x, y }, index) => {
    const [before, after] = [out[(index + count - 1) % count]!, out[index]!];
    // Where two sides meet at a sharp corner it is not moved out for ever.
    const meet = OVERLAP / Math.max(0.08, 1 + before.x * after.x + before.y * after.y);
    return { x: x + (before.x + after.x) * meet, y: y + (before.y + after.y) * meet };
  });
}

/** Draws the part of a picture within one triangle into another one, or parallelograms, by their first three corners. */
function warp(
  context: CanvasRenderingContext2D,
  picture: CanvasImageSource,
  from: readonly Point[],
  to: readonly Point[],
): void {
  const [p, q, r] = from as [Point, Point, Point];
  const [u, v, w] = to as [Point, Point, Point];
  const det = (q.x - p.x) * (r.y - p.y) - (r.x - p.x) * (q.y - p.y);
  if (Math.abs(det) < 1e-9) return;
  const across = (one: keyof Point): [number, number] => {
    const [first, second] = [v[one] - u[one], w[one] - u[one]];
    return [
      (first * (r.y - p.y) - second * (q.y - p.y)) / det,
      (second * (q.x - p.x) - first * (r.x - p.x)) / det,
    ];
  };
  const [a, c] = across('x');
  const [b, d] = across('y');
  context.save();
  trace(context, grown(to));
  context.clip();
  context.transform(a, b, c, d, u.x - a * p.x - c * p.y, u.y - b * p.x - d * p.y);
  context.drawImage(picture, 0, 0);
  context.restore();
}

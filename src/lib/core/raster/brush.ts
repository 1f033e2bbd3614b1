import { apply, applyBox, invert, type Affine } from '../geom/affine';
import { intersectBoxes, unionBoxes, type Box } from '../geom/box';
import type { BrushStroke } from '../geom/brush-stroke';

/** Pixels that are painted on, and how they lie: `toMask` takes them to the px of the strokes. */
export type Canvas = { toMask: Affine; fromMask: Affine; pixel: number; width: number; height: number };

/** So many pixels as a canvas; `null` where `toMask` cannot be undone. */
export function canvasOf(toMask: Affine, width: number, height: number): Canvas | null {
  const fromMask = invert(toMask);
  const pixel = Math.sqrt(Math.abs(toMask.a * toMask.d - toMask.b * toMask.c));
  return fromMask && { toMask, fromMask, pixel, width, height };
}

/**
 * Says of each pixel that a stroke touches how much of it is covered, 0 to 1, by the distance d to its line: wholly
 * within (1 − softness) of the radius, from there to the rim by 1 − 3t² + 2t³; a hard rim is one pixel wide. A stroke
 * crosses itself without adding up.
 */
export function eachCovered(
  stroke: BrushStroke,
  canvas: Canvas,
  lay: (at: number, cover: number) => void,
): void {
  const { points, strength } = stroke;
  const outer = stroke.size / 2 + canvas.pixel / 2;
  const inner = Math.max(0, Math.min((stroke.size / 2) * (1 - stroke.softness), outer - canvas.pixel));
  const area = pixelsOf(boxOf(points, outer), canvas);
  if (!area) return;
  const nearest = new Float32Array(area.width * area.height).fill(outer * outer);
  for (let at = 0; at < points.length; at += 2) {
    const last = Math.max(0, at - 2);
    measure(
      [points[last]!, points[last + 1]!, points[at]!, points[at + 1]!],
      outer,
      canvas,
      area,
      nearest,
      inner * inner,
    );
  }
  for (let row = 0; row < area.height; row += 1)
    for (let column = 0; column < area.width; column += 1) {
      const distance = Math.sqrt(nearest[row * area.width + column]!);
      if (distance >= outer) continue;
      const t = distance <= inner ? 0 : (distance - inner) / (outer - inner);
      lay((row + area.y) * canvas.width + column + area.x, strength * (1 - t * t * (3 - 2 * t)));
    }
}

/** Keeps for each pixel of `area` the smallest square of its distance to one segment, down to `within`: nearer is all the same. */
function measure(
  [ax, ay, bx, by]: [number, number, number, number],
  reach: number,
  canvas: Canvas,
  area: Box,
  nearest: Float32Array,
  within: number,
): void {
  const near = pixelsOf(boxOf([ax, ay, bx, by], reach), canvas);
  if (!near) return;
  const dx = bx - ax;
  const dy = by - ay;
  const long = dx * dx + dy * dy;
  const share = long === 0 ? 0 : 1 / long;
  const { a, b } = canvas.toMask;
  // Of a row only what lies within reach of the segment's line can come nearer.
  const lean = a * dy - b * dx;
  const aside = reach * Math.sqrt(long) * (1 + 1e-9);
  // Millions of pixels pass here for a broad brush: plain numbers only, one step of the matrix to a pixel.
  for (let row = near.y; row < near.y + near.height; row += 1) {
    const start = apply(canvas.toMask, { x: near.x + 0.5, y: row + 0.5 });
    const off = (start.x - ax) * dy - (start.y - ay) * dx;
    const middle = lean === 0 ? 0 : -off / lean;
    const half = lean === 0 ? Infinity : Math.abs(aside / lean) + 1;
    const first = Math.max(0, Math.floor(middle - half));
    const last = Math.min(near.width - 1, Math.ceil(middle + half));
    let x = start.x - ax + a * first;
    let y = start.y - ay + b * first;
    let to = (row - area.y) * area.width + near.x - area.x + first;
    for (let column = first; column <= last; column += 1) {
      const held = nearest[to]!;
      if (held > within) {
        const along = (x * dx + y * dy) * share;
        const kept = along < 0 ? 0 : along > 1 ? 1 : along;
        const ex = x - kept * dx;
        const ey = y - kept * dy;
        const square = ex * ex + ey * ey;
        if (square < held) nearest[to] = square;
      }
      x += a;
      y += b;
      to += 1;
    }
  }
}

/** Everything that strokes touch, in mask px, with a little room; `null` without strokes. */
export function strokesBox(strokes: readonly BrushStroke[]): Box | null {
  const boxes = strokes.map(({ points, size }) => boxOf(points, size / 2 + 2));
  return unionBoxes(boxes);
}

function boxOf(points: readonly number[], reach: number): Box {
  const xs = points.filter((_, at) => at % 2 === 0);
  const ys = points.filter((_, at) => at % 2 === 1);
  const least = (values: number[]): number => values.reduce((one, other) => Math.min(one, other), Infinity);
  const most = (values: number[]): number => values.reduce((one, other) => Math.max(one, other), -Infinity);
  const [x, y] = [least(xs) - reach, least(ys) - reach];
  return { x, y, width: most(xs) + reach - x, height: most(ys) + reach - y };
}

/** The whole pixels of the canvas that a box of the mask touches. */
function pixelsOf(box: Box, { fromMask, width, height }: Canvas): Box | null {
  const { x, y, width: wide, height: high } = applyBox(fromMask, box);
  const left = Math.floor(x);
  const top = Math.floor(y);
  const touched = { x: left, y: top, width: Math.ceil(x + wide) - left, height: Math.ceil(y + high) - top };
  return intersectBoxes(touched, { x: 0, y: 0, width, height });
}

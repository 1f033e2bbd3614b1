import { clamp } from '../num/tolerance';
import { scaling, translation, chain } from './affine';
import { pathBox, transformPath, type Path } from './path';
import type { Point } from './point';

/** The forms that motifs and layout shapes are built from. `radius` is a corner radius in px; `inner` the star's inner radius as a share of the outer. */
export type ShapeForm =
  | { kind: 'rectangle'; radius: number }
  | { kind: 'ellipse' }
  | { kind: 'polygon'; sides: number }
  | { kind: 'star'; points: number; inner: number };

/**
 * The handle length that makes four cubic curves nearest to a circle of radius 1: 4/3·(√2 − 1). The largest radial
 * error is 0.027 % (derived by setting the curve's middle on the circle).
 */
const ARC_HANDLE = (4 / 3) * (Math.SQRT2 - 1);

/** The outline of a form that fills the box from (0, 0) to (width, height) exactly. */
export function formPath(form: ShapeForm, width: number, height: number): Path {
  switch (form.kind) {
    case 'rectangle':
      return rectanglePath(width, height, form.radius);
    case 'ellipse':
      return rectanglePath(width, height, Infinity);
    case 'polygon':
      return fitPoints(
        ringOf(form.sides, () => 1),
        width,
        height,
      );
    case 'star':
      return fitPoints(
        ringOf(form.points * 2, (index) => (index % 2 === 0 ? 1 : form.inner)),
        width,
        height,
      );
  }
}

/** A rectangle with elliptical corners; `radius` is limited to half of each side, so that a large one makes an ellipse. */
export function rectanglePath(width: number, height: number, radius: number): Path {
  const rx = clamp(radius, 0, width / 2);
  const ry = clamp(radius, 0, height / 2);
  if (rx === 0 || ry === 0) return polygonPath([p(0, 0), p(width, 0), p(width, height), p(0, height)]);
  const hx = rx * (1 - ARC_HANDLE);
  const hy = ry * (1 - ARC_HANDLE);
  const path: Path = [{ op: 'M', to: p(rx, 0) }];
  const line = (to: Point): void => {
    const last = path[path.length - 1];
    const from = last && last.op !== 'Z' ? last.to : to;
    if (from.x !== to.x || from.y !== to.y) path.push({ op: 'L', to });
  };
  line(p(width - rx, 0));
  path.push({ op: 'C', c1: p(width - hx, 0), c2: p(width, hy), to: p(width, ry) });
  line(p(width, height - ry));
  path.push({ op: 'C', c1: p(width, height - hy), c2: p(width - hx, height), to: p(width - rx, height) });
  line(p(rx, height));
  path.push({ op: 'C', c1: p(hx, height), c2: p(0, height - hy), to: p(0, height - ry) });
  line(p(0, ry));
  path.push({ op: 'C', c1: p(0, hy), c2: p(hx, 0), to: p(rx, 0) }, { op: 'Z' });
  return path;
}

/** A closed path through points. */
export function polygonPath(points: readonly Point[]): Path {
  return [...points.map((to, index): Path[number] => ({ op: index === 0 ? 'M' : 'L', to })), { op: 'Z' }];
}

const p = (x: number, y: number): Point => ({ x, y });

function ringOf(count: number, radius: (index: number) => number): Point[] {
  return Array.from({ length: count }, (_, index) => {
    const angle = (2 * Math.PI * index) / count - Math.PI / 2;
    return { x: Math.cos(angle) * radius(index), y: Math.sin(angle) * radius(index) };
  });
}

function fitPoints(points: Point[], width: number, height: number): Path {
  const path = polygonPath(points);
  const box = pathBox(path);
  if (!box || box.width === 0 || box.height === 0) return path;
  return transformPath(
    chain(scaling(width / box.width, height / box.height), translation(-box.x, -box.y)),
    path,
  );
}

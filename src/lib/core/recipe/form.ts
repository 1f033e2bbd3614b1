import { scaling } from '../geom/affine';
import { fitFreehand, thinned } from '../geom/freehand';
import { strokeOutline } from '../geom/outline';
import { parsePath, pathBox, transformPath, type Path } from '../geom/path';
import type { Point } from '../geom/point';
import { formPath, type ShapeForm } from '../geom/shapes';

/** What a shape's outline is made from. `width` and `height` are the box that a drawing was made in; it is stretched to the frame. */
export type LayoutForm = ShapeForm | PathForm | TextForm | BrushForm;

/** A drawn or imported outline; it may be open, as a line is. */
export type PathForm = { kind: 'path'; d: string; width: number; height: number };

/** A line or lines of text as outlines; the words stay editable. `size` and `leading` are in px of its own box. */
export type TextForm = {
  kind: 'text';
  d: string;
  width: number;
  height: number;
  text: string;
  font: string;
  size: number;
  align: 'start' | 'middle' | 'end';
};

/** A stroke of a brush: `points` are x, y, x, y … in its own box, `size` its width there; `softness` as of a mask's brush. */
export type BrushForm = {
  kind: 'brush';
  width: number;
  height: number;
  points: readonly number[];
  size: number;
  softness: number;
};

export type DrawnForm = PathForm | TextForm | BrushForm;

export const isDrawn = (form: LayoutForm): form is DrawnForm =>
  form.kind === 'path' || form.kind === 'text' || form.kind === 'brush';

/** The outline of a form in a frame of `width` × `height` px. Path data that cannot be read gives no outline. */
export function layoutFormPath(form: LayoutForm, width: number, height: number): Path {
  if (!isDrawn(form)) return formPath(form, width, height);
  const stretch = scaling(width / (form.width || 1), height / (form.height || 1));
  return transformPath(stretch, drawnPath(form));
}

/** Outlines of forms, as long as somebody holds them: a shape that is moved or sized keeps its form. */
const outlines = new WeakMap<DrawnForm, Path>();

function drawnPath(form: DrawnForm): Path {
  const held = outlines.get(form);
  if (held) return held;
  const path = form.kind === 'brush' ? brushOutline(form) : readPath(form.d);
  outlines.set(form, path);
  return path;
}

function readPath(d: string): Path {
  const read = parsePath(d);
  return read.ok ? read.path : [];
}

/** The area that a brush's stroke covers to its rim. */
function brushOutline({ points, size }: BrushForm): Path {
  const line = brushLine(points);
  const outline = strokeOutline(
    line,
    { width: size, cap: 'round', join: 'round', miterLimit: 4, dashes: [] },
    0.02,
  );
  return outline.ok ? outline.path : [];
}

function brushLine(points: readonly number[]): Path {
  const places = thinned(pairs(points), 0.1);
  const [first] = places;
  if (!first) return [];
  const rest = places.length > 1 ? places.slice(1) : [{ x: first.x + 1e-3, y: first.y }];
  return [{ op: 'M', to: first }, ...rest.map((to): Path[number] => ({ op: 'L', to }))];
}

export const pairs = (points: readonly number[]): Point[] =>
  Array.from({ length: Math.floor(points.length / 2) }, (_, at) => ({
    x: points[2 * at] ?? 0,
    y: points[2 * at + 1] ?? 0,
  }));

/** A path's outline as a form, and the frame that it lies in; `null` for a path without extent. */
export function formOfPath(
  path: Path,
  print: (path: Path) => string,
): { form: PathForm; frame: { x: number; y: number; width: number; height: number } } | null {
  const box = pathBox(path);
  if (!box || (box.width <= 0 && box.height <= 0)) return null;
  // A level or upright line has a frame of some height, so that it can be sized and turned.
  const width = Math.max(box.width, LEAST_SIDE);
  const height = Math.max(box.height, LEAST_SIDE);
  const inBox = transformPath({ a: 1, b: 0, c: 0, d: 1, e: -box.x, f: -box.y }, path);
  return {
    form: { kind: 'path', d: print(inBox), width, height },
    frame: { x: box.x, y: box.y, width, height },
  };
}

const LEAST_SIDE = 0.01;

/** A hand-drawn row of points as a closed outline. */
export const freehandPath = (points: readonly Point[], tolerance: number): Path => [
  ...fitFreehand(points, tolerance),
  { op: 'Z' },
];

/** A brush's stroke on the page as a form and its frame. */
export function brushForm(
  points: readonly Point[],
  size: number,
  softness: number,
): { form: BrushForm; frame: { x: number; y: number; width: number; height: number } } | null {
  if (points.length === 0) return null;
  const least = (values: number[]): number => values.reduce((one, other) => Math.min(one, other));
  const most = (values: number[]): number => values.reduce((one, other) => Math.max(one, other));
  const x = least(points.map((point) => point.x)) - size / 2;
  const y = least(points.map((point) => point.y)) - size / 2;
  const width = most(points.map((point) => point.x)) + size / 2 - x;
  const height = most(points.map((point) => point.y)) + size / 2 - y;
  const round = (value: number): number => Math.round(value * 1000) / 1000;
  const inBox = points.flatMap((point) => [round(point.x - x), round(point.y - y)]);
  return {
    form: { kind: 'brush', width, height, points: inBox, size, softness },
    frame: { x, y, width, height },
  };
}

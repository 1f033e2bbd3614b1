import svgpath from 'svgpath';
import { IDENTITY, chain, scaling, translation, type Affine } from '../geom/affine';
import { parsePath, transformPath, type Path } from '../geom/path';
import { polygonPath, rectanglePath } from '../geom/shapes';
import { isLengthUnit, toPx } from '../num/length';
import type { XmlNode } from './xml';

export type ShapeResult = { ok: true; path: Path } | { ok: false; message: string } | null;

/** The outline of a basic shape or path; `null` for an element that is none. */
export function shapePath(node: XmlNode): ShapeResult {
  const at = (name: string): number => lengthOf(node.attributes[name]);
  const path = (value: Path): ShapeResult => ({ ok: true, path: value });
  const round = (x: number, y: number, rx: number, ry: number): ShapeResult =>
    path(transformPath(translation(x - rx, y - ry), rectanglePath(2 * rx, 2 * ry, Infinity)));
  switch (node.name) {
    case 'path':
      return parsePath(node.attributes.d ?? '');
    case 'rect':
      return path(transformPath(translation(at('x'), at('y')), rectangle(node)));
    case 'circle':
      return round(at('cx'), at('cy'), at('r'), at('r'));
    case 'ellipse':
      return round(at('cx'), at('cy'), at('rx'), at('ry'));
    case 'line':
      return path([
        { op: 'M', to: { x: at('x1'), y: at('y1') } },
        { op: 'L', to: { x: at('x2'), y: at('y2') } },
      ]);
    case 'polyline':
    case 'polygon':
      return polyline(node);
    default:
      return null;
  }
}

/** A rect with corners of its own two radii: one that is not stated takes the other's value. */
function rectangle({ attributes }: XmlNode): Path {
  const [width, height] = [lengthOf(attributes.width), lengthOf(attributes.height)];
  const rx = attributes.rx ?? attributes.ry;
  const ry = attributes.ry ?? attributes.rx;
  const across = Math.min(lengthOf(rx), width / 2);
  const down = Math.min(lengthOf(ry), height / 2);
  if (!(across > 0) || !(down > 0)) return rectanglePath(width, height, 0);
  // Elliptical corners are round ones of a rectangle that is stretched down.
  const stretch = down / across;
  return transformPath(scaling(1, stretch), rectanglePath(width, height / stretch, across));
}

function polyline(node: XmlNode): ShapeResult {
  const numbers = (node.attributes.points ?? '')
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  if (numbers.some((value) => !Number.isFinite(value)))
    return { ok: false, message: `The points of a <${node.name}> cannot be read; it was left out.` };
  const points = Array.from({ length: Math.floor(numbers.length / 2) }, (_, index) => ({
    x: numbers[index * 2] ?? 0,
    y: numbers[index * 2 + 1] ?? 0,
  }));
  const closed = polygonPath(points);
  return { ok: true, path: node.name === 'polygon' ? closed : closed.slice(0, -1) };
}

/** User units → px of the outermost <svg>: its size in CSS lengths over its viewBox. */
export function rootMatrix(root: XmlNode): Affine {
  const box = viewBoxOf(root);
  const stated = { width: lengthOf(root.attributes.width), height: lengthOf(root.attributes.height) };
  if (!box) return IDENTITY;
  const across = stated.width > 0 ? stated.width / box.width : 1;
  const down = stated.height > 0 ? stated.height / box.height : across;
  const scale = Math.min(across, down);
  return chain(scaling(Number.isFinite(scale) && scale > 0 ? scale : 1), translation(-box.x, -box.y));
}

/**
 * The matrix of an <svg> inside another, of a <symbol> in use or of a <pattern>: its viewBox fitted into width × height
 * as its preserveAspectRatio says (SVG 2, section 8.7); in the middle where it says nothing.
 */
export function viewportMatrix(node: XmlNode, width: number, height: number): Affine {
  const box = viewBoxOf(node);
  if (!box || !(width > 0) || !(height > 0)) return IDENTITY;
  const [align = 'xMidYMid', how = 'meet'] = (node.attributes.preserveAspectRatio ?? '').trim().split(/\s+/);
  const [across, down] = [width / box.width, height / box.height];
  if (align === 'none') return chain(scaling(across, down), translation(-box.x, -box.y));
  const scale = how === 'slice' ? Math.max(across, down) : Math.min(across, down);
  const share = (axis: string): number =>
    align.includes(`${axis}Min`) ? 0 : align.includes(`${axis}Max`) ? 1 : 0.5;
  return chain(
    translation((width - box.width * scale) * share('x'), (height - box.height * scale) * share('Y')),
    scaling(scale),
    translation(-box.x, -box.y),
  );
}

export function viewBoxOf(node: XmlNode): { x: number; y: number; width: number; height: number } | null {
  const [x, y, width, height] = (node.attributes.viewBox ?? '')
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  if (!width || !height || !(width > 0) || !(height > 0)) return null;
  return { x: x ?? 0, y: y ?? 0, width, height };
}

/** A CSS length in px; percentages and unknown units count as 0, a bare number as px. */
export function lengthOf(text: string | undefined): number {
  const match = /^\s*([-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?)\s*([a-z%]*)\s*$/i.exec(text ?? '');
  const value = Number(match?.[1]);
  const unit = match?.[2]?.toLowerCase() ?? '';
  if (!match || !Number.isFinite(value)) return 0;
  if (unit === '') return value;
  if (unit === 'cm') return toPx(value * 10, 'mm');
  return isLengthUnit(unit) ? toPx(value, unit) : 0;
}

/** An SVG transform list as a matrix, read by svgpath: where it takes the origin and the two unit points. */
export function transformOf(text: string | undefined): Affine {
  if (!text) return IDENTITY;
  // Far-away unit points keep the digits that the printing of paths cuts off.
  const far = 1e4;
  const read = parsePath(svgpath(`M0 0L${far} 0L0 ${far}`).transform(text).toString());
  const [o, u, v] = read.ok
    ? read.path.map((segment) => (segment.op === 'Z' ? { x: 0, y: 0 } : segment.to))
    : [];
  if (!o || !u || !v) return IDENTITY;
  const matrix: Affine = {
    a: (u.x - o.x) / far,
    b: (u.y - o.y) / far,
    c: (v.x - o.x) / far,
    d: (v.y - o.y) / far,
    e: o.x,
    f: o.y,
  };
  return Object.values(matrix).every(Number.isFinite) ? matrix : IDENTITY;
}

import { IDENTITY, chain, scaling, translation, type Affine } from '../geom/affine';
import { parsePath, transformPath, type Path } from '../geom/path';
import { polygonPath, rectanglePath } from '../geom/shapes';
import { lengthOf, PLAIN_MEASURES, type Measures, type Side } from './lengths';
import type { XmlNode } from './xml';

export type ShapeResult = { ok: true; path: Path } | { ok: false; message: string } | null;

/** Numbers in the data of one path, and characters of it, before it is no drawing any more. */
const MOST_NUMBERS = 300_000;
const LONGEST_DATA = 2_500_000;

const SIDES: Record<string, Side> = { r: 'both', y: 'y', cy: 'y', y1: 'y', y2: 'y', height: 'y', ry: 'y' };

/** The outline of a basic shape or path; `null` for an element that is none. */
export function shapePath(node: XmlNode, measures: Measures = PLAIN_MEASURES): ShapeResult {
  const at = (name: string): number => lengthOf(node.attributes[name], measures, SIDES[name] ?? 'x');
  const path = (value: Path): ShapeResult => ({ ok: true, path: value });
  const round = (x: number, y: number, rx: number, ry: number): ShapeResult =>
    path(
      rx > 0 && ry > 0
        ? transformPath(translation(x - rx, y - ry), rectanglePath(2 * rx, 2 * ry, Infinity))
        : [],
    );
  switch (node.name) {
    case 'path':
      return pathData(node.attributes.d ?? '');
    case 'rect':
      return path(transformPath(translation(at('x'), at('y')), rectangle(node, at)));
    case 'circle':
      return round(at('cx'), at('cy'), at('r'), at('r'));
    case 'ellipse': {
      // One radius alone stands for both.
      const { rx, ry } = node.attributes;
      const across = rx === undefined || rx === 'auto' ? at('ry') : at('rx');
      return round(at('cx'), at('cy'), across, ry === undefined || ry === 'auto' ? across : at('ry'));
    }
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

function pathData(d: string): ShapeResult {
  if (d.length > LONGEST_DATA || countNumbers(d) > MOST_NUMBERS)
    return {
      ok: false,
      message: `A path of more than ${MOST_NUMBERS} numbers was left out; simplify it first.`,
    };
  if (d.trim() === '' || d.trim() === 'none') return { ok: true, path: [] };
  return parsePath(d);
}

/** How many numbers path data hold, roughly: runs of digits. One longer than any number counts as too many. */
function countNumbers(d: string): number {
  let count = 0;
  let run = 0;
  for (let at = 0; at < d.length; at += 1) {
    const code = d.charCodeAt(at);
    if (code >= 48 && code <= 57) {
      run += 1;
      if (run === 1) count += 1;
      if (run > 400) return Infinity;
    } else run = 0;
  }
  return count;
}

/** A rect with corners of its own two radii: one that is not stated takes the other's value. */
function rectangle({ attributes }: XmlNode, at: (name: string) => number): Path {
  const [width, height] = [at('width'), at('height')];
  if (!(width > 0) || !(height > 0)) return [];
  const rx = attributes.rx === undefined || attributes.rx === 'auto' ? at('ry') : at('rx');
  const ry = attributes.ry === undefined || attributes.ry === 'auto' ? at('rx') : at('ry');
  const across = Math.min(rx, width / 2);
  const down = Math.min(ry, height / 2);
  if (!(across > 0) || !(down > 0)) return rectanglePath(width, height, 0);
  // Elliptical corners are round ones of a rectangle that is stretched down.
  const stretch = down / across;
  return transformPath(scaling(1, stretch), rectanglePath(width, height / stretch, across));
}

function polyline(node: XmlNode): ShapeResult {
  const text = node.attributes.points ?? '';
  if (countNumbers(text) > MOST_NUMBERS)
    return { ok: false, message: `A <${node.name}> of more than ${MOST_NUMBERS} numbers was left out.` };
  const numbers = (text.match(/[-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?/gi) ?? []).map(Number);
  if (/[^\s\d.,eE+-]/.test(text) || numbers.some((value) => !Number.isFinite(value)))
    return { ok: false, message: `The points of a <${node.name}> cannot be read; it was left out.` };
  const points = Array.from({ length: Math.floor(numbers.length / 2) }, (_, index) => ({
    x: numbers[index * 2] ?? 0,
    y: numbers[index * 2 + 1] ?? 0,
  }));
  if (points.length < 2) return { ok: true, path: [] };
  const closed = polygonPath(points);
  return { ok: true, path: node.name === 'polygon' ? closed : closed.slice(0, -1) };
}

/** What the outermost <svg> shows: its size in px, and its user units → px. A size that is not stated is that of its viewBox. */
export function rootViewport(root: XmlNode): { width: number; height: number; matrix: Affine } | null {
  const box = viewBoxOf(root);
  const measures = { fontSize: 16, viewport: box ?? { width: 0, height: 0 } };
  const [stated, high] = [
    lengthOf(root.attributes.width, measures, 'x'),
    lengthOf(root.attributes.height, measures, 'y'),
  ];
  if (!box) return stated > 0 && high > 0 ? { width: stated, height: high, matrix: IDENTITY } : null;
  const width = stated > 0 ? stated : high > 0 ? (box.width * high) / box.height : box.width;
  const height = high > 0 ? high : (box.height * width) / box.width;
  return { width, height, matrix: viewportMatrix(root, width, height) };
}

/** User units → px of the outermost <svg>. */
export const rootMatrix = (root: XmlNode): Affine => rootViewport(root)?.matrix ?? IDENTITY;

/**
 * The matrix of an <svg>, of a <symbol> in use or of a <pattern>: its viewBox fitted into width × height as its
 * preserveAspectRatio says (SVG 2, section 8.7); in the middle where it says nothing.
 */
export function viewportMatrix(node: XmlNode, width: number, height: number): Affine {
  const box = viewBoxOf(node);
  if (!box || !(width > 0) || !(height > 0)) return IDENTITY;
  const [align = 'xMidYMid', how = 'meet'] = (node.attributes.preserveAspectRatio ?? '')
    .trim()
    .split(/\s+/)
    .filter((part) => part !== '');
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
  const text = node.attributes.viewBox ?? '';
  if (text.length > 200) return null;
  const [x, y, width, height] = text
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  if (!width || !height || !(width > 0) || !(height > 0)) return null;
  if (![x, y, width, height].every(Number.isFinite)) return null;
  return { x: x ?? 0, y: y ?? 0, width, height };
}

import { IDENTITY, chain, multiply, scaling, translation, type Affine } from '../geom/affine';
import { pathBox, type Path } from '../geom/path';
import type { Hex } from '../colour/parse';
import { readColour } from '../colour/space';
import type { GradientPaint } from '../recipe/recipe';
import { transformOf } from './import-read';
import { propertiesOf, type StyleRule } from './style';
import type { XmlNode } from './xml';

export type ImportedGradient = Omit<GradientPaint, 'stops'> & {
  stops: { at: number; hex: Hex; opacity: number }[];
};

/** A gradient, one plain colour where the standard says that it paints one, or `null` for nothing usable. */
export type GradientResult = ImportedGradient | { kind: 'plain'; hex: Hex; opacity: number } | null;

const DEEPEST_HREF = 8;

/**
 * A <linearGradient> or <radialGradient> with all that it inherits by href (SVG 2, chapter 14), over `path`, as a
 * paint in the space to which `matrix` takes the path. A focus off the centre is not kept; `note` says so.
 */
export function readGradient(
  id: string,
  byId: ReadonlyMap<string, XmlNode>,
  rules: readonly StyleRule[],
  path: Path,
  matrix: Affine,
  note: (text: string) => void,
): GradientResult {
  const node = byId.get(id);
  if (!node || (node.name !== 'linearGradient' && node.name !== 'radialGradient')) return null;
  const { attributes, stops: stopNodes } = inherited(node, byId);
  const stops = stopNodes.map((stop) => readStop(stop, rules));
  const last = stops[stops.length - 1];
  if (!last) return null;
  const plain = { kind: 'plain' as const, hex: last.hex, opacity: last.opacity };
  if (stops.length === 1) return plain;
  const inBox = attributes.gradientUnits !== 'userSpaceOnUse';
  const box = pathBox(path);
  if (!box || (inBox && (box.width === 0 || box.height === 0))) return plain;
  const frame = inBox ? chain(translation(box.x, box.y), scaling(box.width, box.height)) : IDENTITY;
  const at = (name: string, otherwise: number): number => share(attributes[name], otherwise);
  const spread = attributes.spreadMethod;
  const base = {
    spread: spread === 'reflect' || spread === 'repeat' ? (spread as 'reflect' | 'repeat') : ('pad' as const),
    stops: rising(stops),
  };
  const own = transformOf(attributes.gradientTransform);
  const whole = (vector: Affine): Affine => chain(matrix, frame, own, vector);
  if (node.name === 'linearGradient') {
    const [x1, y1, x2, y2] = [at('x1', 0), at('y1', 0), at('x2', 1), at('y2', 0)];
    if (x1 === x2 && y1 === y2) return plain;
    const vector: Affine = { a: x2 - x1, b: y2 - y1, c: y1 - y2, d: x2 - x1, e: x1, f: y1 };
    return { kind: 'linear', ...base, matrix: whole(vector) };
  }
  const [cx, cy, r] = [at('cx', 0.5), at('cy', 0.5), at('r', 0.5)];
  if (r <= 0) return plain;
  if (Math.hypot(at('fx', cx) - cx, at('fy', cy) - cy) > r * 0.01)
    note('The focus of a radial gradient was moved to its centre.');
  return { kind: 'radial', ...base, matrix: whole(multiply(translation(cx, cy), scaling(r))) };
}

/** Attributes and stops with those of the gradients that `node` refers to filled in. */
function inherited(
  node: XmlNode,
  byId: ReadonlyMap<string, XmlNode>,
): { attributes: Record<string, string>; stops: XmlNode[] } {
  let attributes: Record<string, string> = {};
  let stops: XmlNode[] = [];
  let at: XmlNode | undefined = node;
  for (let depth = 0; at && depth < DEEPEST_HREF; depth += 1) {
    attributes = { ...at.attributes, ...attributes };
    if (stops.length === 0) stops = at.children.filter((child) => child.name === 'stop');
    const href: string = at.attributes.href ?? '';
    at = href.startsWith('#') ? byId.get(href.slice(1)) : undefined;
  }
  return { attributes, stops };
}

function readStop(node: XmlNode, rules: readonly StyleRule[]): { at: number; hex: Hex; opacity: number } {
  const own = propertiesOf(node, rules);
  const read = readColour(own['stop-color'] ?? '#000000');
  const opacity = Math.min(1, Math.max(0, share(own['stop-opacity'], 1)));
  return { at: Math.min(1, Math.max(0, share(own.offset, 0))), hex: read.ok ? read.hex : '#000000', opacity };
}

/** Offsets never fall: each is at least the one before. */
function rising<T extends { at: number }>(stops: T[]): T[] {
  let least = 0;
  return stops.map((stop) => {
    least = Math.max(least, stop.at);
    return { ...stop, at: least };
  });
}

/** A number or a percentage; userSpaceOnUse percentages are rare and taken as shares of 1. */
function share(text: string | undefined, otherwise: number): number {
  const value = Number.parseFloat(text ?? '');
  if (!Number.isFinite(value)) return otherwise;
  return text?.trim().endsWith('%') ? value / 100 : value;
}

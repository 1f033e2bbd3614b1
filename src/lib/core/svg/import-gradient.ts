import { IDENTITY, chain, multiply, scaling, translation, type Affine } from '../geom/affine';
import type { Box } from '../geom/box';
import type { Hex } from '../colour/parse';
import type { GradientPaint } from '../recipe/recipe';
import type { StyleSheet } from './css';
import { lengthOf, shareOf, type Measures, type Side } from './lengths';
import { inkOf, propertiesOf, type Ink } from './style';
import { transformOf } from './transforms';
import type { XmlNode } from './xml';

export type ImportedGradient = Omit<GradientPaint, 'stops'> & {
  stops: { at: number; hex: Hex; opacity: number }[];
};

/** A gradient, one plain colour where the standard says that it paints one, or `null` for nothing usable. */
export type GradientResult = ImportedGradient | { kind: 'plain'; hex: Hex; opacity: number } | null;

const DEEPEST_HREF = 8;
/** What a drawing keeps of a gradient's stops. */
const MOST_STOPS = 64;
/** A focus is kept a little within the circle, as renderers do. */
const FURTHEST_FOCUS = 0.999;

/** What a gradient is read from. */
export type GradientSource = {
  byId: ReadonlyMap<string, XmlNode>;
  sheet: StyleSheet;
  measures: Measures;
  note: (text: string) => void;
};

/**
 * A <linearGradient> or <radialGradient> with all that it inherits by href (SVG 2, chapter 14), over what has the box
 * `box`, as a paint in the space to which `matrix` takes that.
 */
export function readGradient(
  id: string,
  source: GradientSource,
  box: Box | null,
  matrix: Affine,
): GradientResult {
  const { byId, sheet, note } = source;
  const node = byId.get(id);
  if (!node || (node.name !== 'linearGradient' && node.name !== 'radialGradient')) return null;
  const { attributes, stops: stopNodes } = inherited(node, byId);
  if (stopNodes.length > MOST_STOPS)
    note(`Of the ${stopNodes.length} stops of a gradient ${MOST_STOPS} were kept.`);
  const stops = thinned(stopNodes, MOST_STOPS).map((stop) => readStop(stop, sheet));
  const last = stops[stops.length - 1];
  if (!last) return null;
  const plain = { kind: 'plain' as const, hex: last.hex, opacity: last.opacity };
  if (stops.length === 1) return plain;
  const inBox = attributes.gradientUnits !== 'userSpaceOnUse';
  if (inBox && (!box || box.width === 0 || box.height === 0)) return null;
  const frame = inBox && box ? chain(translation(box.x, box.y), scaling(box.width, box.height)) : IDENTITY;
  const at = (name: string, otherwise: string, side: Side): number => {
    const text = attributes[name] ?? otherwise;
    return inBox ? shareOf(text, 0, false) : lengthOf(text, source.measures, side);
  };
  const spread = attributes.spreadMethod;
  const base = {
    spread: spread === 'reflect' || spread === 'repeat' ? (spread as 'reflect' | 'repeat') : ('pad' as const),
    stops: rising(stops),
  };
  const own = transformOf(attributes.gradientTransform, source.measures);
  const whole = (vector: Affine): Affine => chain(matrix, frame, own, vector);
  if (node.name === 'linearGradient') {
    const [x1, y1, x2, y2] = [
      at('x1', '0%', 'x'),
      at('y1', '0%', 'y'),
      at('x2', '100%', 'x'),
      at('y2', '0%', 'y'),
    ];
    if (x1 === x2 && y1 === y2) return plain;
    const vector: Affine = { a: x2 - x1, b: y2 - y1, c: y1 - y2, d: x2 - x1, e: x1, f: y1 };
    return { kind: 'linear', ...base, matrix: whole(vector) };
  }
  const [cx, cy, r] = [at('cx', '50%', 'x'), at('cy', '50%', 'y'), at('r', '50%', 'both')];
  if (!(r > 0)) return plain;
  if (shareOf(attributes.fr, 0, false) > 0) note('The inner circle of a radial gradient was left out.');
  const off = {
    x: ((attributes.fx === undefined ? cx : at('fx', '50%', 'x')) - cx) / r,
    y: ((attributes.fy === undefined ? cy : at('fy', '50%', 'y')) - cy) / r,
  };
  const far = Math.hypot(off.x, off.y);
  const within = far > FURTHEST_FOCUS ? FURTHEST_FOCUS / far : 1;
  const focus = far > 1e-4 ? { focus: { x: off.x * within, y: off.y * within } } : {};
  return { kind: 'radial', ...base, ...focus, matrix: whole(multiply(translation(cx, cy), scaling(r))) };
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

function readStop(node: XmlNode, sheet: StyleSheet): { at: number; hex: Hex; opacity: number } {
  const own = propertiesOf(node, sheet);
  const ink = inkOf(own['stop-color'] ?? '#000000', textColour(node, sheet)) ?? BLACK;
  return {
    at: shareOf(own.offset, 0),
    hex: ink.hex,
    opacity: ink.alpha * shareOf(own['stop-opacity'], 1),
  };
}

const BLACK: Ink = { hex: '#000000', alpha: 1 };

/** The colour of text where an element stands: `currentColor` of a stop is that of the gradient, not of what it fills. */
function textColour(node: XmlNode, sheet: StyleSheet): Ink {
  for (let at: XmlNode | null = node; at; at = at.parent) {
    const { color } = propertiesOf(at, sheet);
    if (color && color !== 'inherit' && color !== 'currentColor') return inkOf(color, BLACK) ?? BLACK;
  }
  return BLACK;
}

/** Offsets never fall: each is at least the one before. */
function rising<T extends { at: number }>(stops: T[]): T[] {
  let least = 0;
  return stops.map((stop) => {
    least = Math.max(least, stop.at);
    return { ...stop, at: least };
  });
}

/** At most `most` of a list, evenly, the first and the last among them. */
function thinned<T>(list: readonly T[], most: number): T[] {
  if (list.length <= most) return [...list];
  return Array.from(
    { length: most },
    (_, index) => list[Math.round((index * (list.length - 1)) / (most - 1))] as T,
  );
}

import type { Hex } from '../colour/parse';
import { readPaint } from '../colour/space';
import type { FillRule, LineCap, LineJoin } from '../recipe/recipe';
import { inlineDeclarations, type Declaration, type StyleSheet } from './css';
import { lengthOf, shareOf, type Measures } from './lengths';
import type { XmlNode } from './xml';

/** A plain colour with its own opacity, or a reference to a gradient or pattern with the colour to take where it fails. */
export type PaintStyle = { hex: Hex; alpha: number; reference: string | null };

/** A colour with its opacity. */
export type Ink = { hex: Hex; alpha: number };

/** The presentation properties that an imported drawing keeps, as they are inherited down the tree. */
export type Style = {
  fill: PaintStyle | null;
  stroke: PaintStyle | null;
  color: Ink;
  fillRule: FillRule;
  strokeWidth: number;
  cap: LineCap;
  join: LineJoin;
  miterLimit: number;
  dashes: number[];
  dashOffset: number;
  fillOpacity: number;
  strokeOpacity: number;
  /** The element's own opacity; not inherited. */
  opacity: number;
  visible: boolean;
  /** Strokes keep their width whatever the transform. Not inherited. */
  fixedStroke: boolean;
  strokeFirst: boolean;
  /** For text: the families asked for, size in user units, weight and anchor. */
  fontFamily: string;
  fontSize: number;
  fontWeight: string;
  textAnchor: string;
  clipRule: FillRule;
};

const BLACK: Ink = { hex: '#000000', alpha: 1 };

/** SVG's initial values. */
export const INITIAL_STYLE: Style = {
  fill: { ...BLACK, reference: null },
  stroke: null,
  color: BLACK,
  fillRule: 'nonzero',
  strokeWidth: 1,
  cap: 'butt',
  join: 'miter',
  miterLimit: 4,
  dashes: [],
  dashOffset: 0,
  fillOpacity: 1,
  strokeOpacity: 1,
  opacity: 1,
  visible: true,
  fixedStroke: false,
  strokeFirst: false,
  fontFamily: '',
  fontSize: 16,
  fontWeight: 'normal',
  textAnchor: 'start',
  clipRule: 'nonzero',
};

/** Attributes that are no presentation attributes although a property has their name. */
const NOT_PRESENTED = new Set(['width', 'height', 'x', 'y', 'r', 'rx', 'ry', 'cx', 'cy', 'd']);

/** All properties of an element: its attributes, then the rules that match it, then its style attribute; important ones last. */
export function propertiesOf(node: XmlNode, sheet: StyleSheet): Record<string, string> {
  const found: Record<string, string> = { ...node.attributes };
  const inline = node.attributes.style ? inlineDeclarations(node.attributes.style) : [];
  const ruled = sheet.declarations(node);
  const take = (list: readonly Declaration[], important: boolean): void => {
    for (const one of list)
      if (one.important === important && !NOT_PRESENTED.has(one.name)) found[one.name] = one.value;
  };
  take(ruled, false);
  take(inline, false);
  take(ruled, true);
  take(inline, true);
  return found;
}

/** The style of an element with the given properties below `parent`. Notes what was not understood. */
export function styleOf(
  own: Readonly<Record<string, string>>,
  parent: Style,
  viewport: Measures['viewport'],
  note: (text: string) => void,
): Style {
  const style: Style = { ...parent, opacity: shareOf(own.opacity, 1), fixedStroke: false };
  const inherits = (name: string): boolean => own[name] === undefined || own[name] === 'inherit';
  if (!inherits('font-size'))
    style.fontSize = Math.max(
      0,
      lengthOf(
        own['font-size'],
        { fontSize: parent.fontSize, viewport: { width: parent.fontSize, height: parent.fontSize } },
        'x',
        parent.fontSize,
      ),
    );
  const measures = { fontSize: style.fontSize, viewport };
  const length = (name: string, otherwise: number): number => {
    const value = inherits(name) ? otherwise : lengthOf(own[name], measures, 'both', otherwise);
    return value >= 0 ? value : otherwise;
  };
  if (own.color && !inherits('color')) style.color = inkOf(own.color, parent.color) ?? parent.color;
  if (own.fill && !inherits('fill')) style.fill = paintOf(own.fill, style.color, note);
  if (own.stroke && !inherits('stroke')) style.stroke = paintOf(own.stroke, style.color, note);
  // What says "as the text's colour" goes on to mean the colour where it is used.
  const oneOf = <T extends string>(name: string, values: readonly T[], otherwise: T): T =>
    values.find((value) => value === own[name]?.trim()) ?? otherwise;
  style.fillRule = oneOf('fill-rule', ['evenodd', 'nonzero'], parent.fillRule);
  style.clipRule = oneOf('clip-rule', ['evenodd', 'nonzero'], parent.clipRule);
  style.cap = oneOf('stroke-linecap', ['butt', 'round', 'square'], parent.cap);
  const join = own['stroke-linejoin']?.trim();
  style.join = oneOf(
    'stroke-linejoin',
    ['miter', 'round', 'bevel'],
    join === 'miter-clip' || join === 'arcs' ? 'miter' : parent.join,
  );
  style.strokeWidth = length('stroke-width', parent.strokeWidth);
  const mitre = Number.parseFloat(own['stroke-miterlimit'] ?? '');
  if (mitre >= 1) style.miterLimit = Math.min(1000, mitre);
  if (!inherits('stroke-dasharray')) style.dashes = dashesOf(own['stroke-dasharray'] ?? '', measures);
  if (!inherits('stroke-dashoffset'))
    style.dashOffset = lengthOf(own['stroke-dashoffset'], measures, 'both', 0);
  style.fillOpacity = shareOf(own['fill-opacity'], parent.fillOpacity);
  style.strokeOpacity = shareOf(own['stroke-opacity'], parent.strokeOpacity);
  if (own.visibility && !inherits('visibility')) style.visible = own.visibility.trim() === 'visible';
  style.fixedStroke = own['vector-effect']?.trim() === 'non-scaling-stroke';
  const order = own['paint-order'];
  if (order !== undefined) style.strokeFirst = paintsStrokeFirst(order);
  if (own['font-family'] && !inherits('font-family')) style.fontFamily = own['font-family'];
  if (own['font-weight'] && !inherits('font-weight')) style.fontWeight = own['font-weight'];
  if (own['text-anchor'] && !inherits('text-anchor')) style.textAnchor = own['text-anchor'].trim();
  return style;
}

/** paint-order: what is named comes first, in that order; then fill, stroke, markers. */
function paintsStrokeFirst(order: string): boolean {
  const named = order.trim().split(/\s+/);
  const stroke = named.indexOf('stroke');
  const fill = named.indexOf('fill');
  return stroke >= 0 && (fill < 0 || stroke < fill);
}

function paintOf(value: string, current: Ink, note: (text: string) => void): PaintStyle | null {
  const text = value.trim();
  if (text === 'none' || text === 'context-fill' || text === 'context-stroke') return null;
  const reference = /^url\(\s*["']?#([^"')]{1,200})["']?\s*\)\s*(.{0,200})$/.exec(text);
  if (reference) {
    const [, id = '', fallback = ''] = reference;
    const ink = fallback === '' || fallback === 'none' ? null : inkOf(fallback, current);
    return { ...(ink ?? { hex: '#808080', alpha: fallback === 'none' ? 0 : 1 }), reference: id };
  }
  const ink = inkOf(text, current);
  if (!ink) note(`The colour “${text.slice(0, 40)}” was not understood and became black.`);
  return { ...(ink ?? BLACK), reference: null };
}

/** A colour as CSS writes it, `currentColor` too; `null` for what is none. */
export function inkOf(text: string, current: Ink): Ink | null {
  return text.trim().toLowerCase() === 'currentcolor' ? current : readPaint(text);
}

function dashesOf(text: string, measures: Measures): number[] {
  if (text.trim() === 'none' || text.length > 2000) return [];
  const values = text
    .trim()
    .split(/[\s,]+/)
    .map((part) => lengthOf(part, measures, 'both', Number.NaN));
  if (!values.every((value) => value >= 0) || !values.some((value) => value > 0)) return [];
  // An odd number of dashes is gone through twice.
  return (values.length % 2 === 1 ? [...values, ...values] : values).slice(0, 32);
}

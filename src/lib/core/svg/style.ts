import type { Hex } from '../colour/parse';
import { readColour } from '../colour/space';
import type { LineCap, LineJoin } from '../recipe/recipe';
import type { XmlNode } from './xml';

/** A plain colour, or a reference to a gradient with the colour to take where it cannot be used. */
export type PaintStyle = { hex: Hex; gradient: string | null };

/** The presentation properties that an imported drawing keeps, as they are inherited down the tree. */
export type Style = {
  fill: PaintStyle | null;
  stroke: PaintStyle | null;
  color: Hex;
  fillRule: 'nonzero' | 'evenodd';
  strokeWidth: number;
  cap: LineCap;
  join: LineJoin;
  miterLimit: number;
  dashes: number[];
  fillOpacity: number;
  strokeOpacity: number;
  /** The product of the opacities of the element and all groups around it. */
  opacity: number;
  visible: boolean;
  /** For text: the families asked for, size in user units, weight and anchor. */
  fontFamily: string;
  fontSize: number;
  fontWeight: string;
  textAnchor: string;
  clipRule: 'nonzero' | 'evenodd';
};

/** SVG's initial values. */
export const INITIAL_STYLE: Style = {
  fill: { hex: '#000000', gradient: null },
  stroke: null,
  color: '#000000',
  fillRule: 'nonzero',
  strokeWidth: 1,
  cap: 'butt',
  join: 'miter',
  miterLimit: 4,
  dashes: [],
  fillOpacity: 1,
  strokeOpacity: 1,
  opacity: 1,
  visible: true,
  fontFamily: '',
  fontSize: 16,
  fontWeight: 'normal',
  textAnchor: 'start',
  clipRule: 'nonzero',
};

/** A style rule with one simple selector: a tag, an id and classes that must all hold. */
export type StyleRule = {
  tag: string | null;
  id: string | null;
  classes: string[];
  weight: number;
  values: Record<string, string>;
};

/** The rules of a <style> element whose selectors are simple (`path`, `.a`, `#b`, `rect.a`); others are skipped. */
export function readRules(css: string): { rules: StyleRule[]; skipped: boolean } {
  const rules: StyleRule[] = [];
  let skipped = false;
  const plain = css.replace(/\/\*[\s\S]*?\*\//g, '');
  for (const [, selectors = '', body = ''] of plain.matchAll(/([^{}]+)\{([^{}]*)\}/g)) {
    for (const selector of selectors.split(',').map((part) => part.trim())) {
      const match = /^(\*|[a-z][\w]*)?(#[\w-]+)?((?:\.[\w-]+)*)$/i.exec(selector);
      if (!match || selector === '') {
        skipped = true;
        continue;
      }
      const [, tag = '*', id, classes = ''] = match;
      const names = classes.split('.').filter((name) => name !== '');
      const weight = (id ? 100 : 0) + names.length * 10 + (tag === '*' ? 0 : 1);
      rules.push({
        tag: tag === '*' ? null : tag,
        id: id?.slice(1) ?? null,
        classes: names,
        weight,
        values: declarations(body),
      });
    }
  }
  return { rules, skipped };
}

function ruled(node: XmlNode, rules: readonly StyleRule[]): Record<string, string>[] {
  if (rules.length === 0) return [];
  const classes = new Set((node.attributes.class ?? '').split(/\s+/));
  return rules
    .filter(
      ({ tag, id, classes: names }) =>
        (tag === null || tag === node.name) &&
        (id === null || id === node.attributes.id) &&
        names.every((name) => classes.has(name)),
    )
    .sort((one, other) => one.weight - other.weight)
    .map(({ values }) => values);
}

/** All properties of an element: its attributes, then the rules that match it, then its style attribute. */
export function propertiesOf(node: XmlNode, rules: readonly StyleRule[]): Record<string, string> {
  const inline = declarations(node.attributes.style ?? '');
  return Object.assign({}, node.attributes, ...ruled(node, rules), inline) as Record<string, string>;
}

/** The style of `node` below `parent`. Notes what was left out. */
export function styleOf(
  node: XmlNode,
  parent: Style,
  rules: readonly StyleRule[],
  note: (text: string) => void,
): Style {
  const own = propertiesOf(node, rules);
  const style = { ...parent };
  if (own.color) style.color = plainColour(own.color, parent.color) ?? parent.color;
  if (own.fill) style.fill = paint(own.fill, parent.fill, style.color, note);
  if (own.stroke) style.stroke = paint(own.stroke, parent.stroke, style.color, note);
  const rule = own['fill-rule'];
  if (rule === 'evenodd' || rule === 'nonzero') style.fillRule = rule;
  const cap = own['stroke-linecap'];
  if (cap === 'butt' || cap === 'round' || cap === 'square') style.cap = cap;
  const join = own['stroke-linejoin'];
  if (join === 'miter' || join === 'round' || join === 'bevel') style.join = join;
  style.strokeWidth = number(own['stroke-width'], parent.strokeWidth);
  style.miterLimit = Math.max(1, number(own['stroke-miterlimit'], parent.miterLimit));
  if (own['stroke-dasharray']) style.dashes = dashes(own['stroke-dasharray']);
  style.fillOpacity = share(own['fill-opacity'], parent.fillOpacity);
  style.strokeOpacity = share(own['stroke-opacity'], parent.strokeOpacity);
  style.opacity = parent.opacity * share(own.opacity, 1);
  if (own.visibility) style.visible = own.visibility === 'visible' || own.visibility === 'inherit';
  if (own.display === 'none') style.visible = false;
  if (own['clip-rule'] === 'evenodd' || own['clip-rule'] === 'nonzero') style.clipRule = own['clip-rule'];
  if (own['font-family']) style.fontFamily = own['font-family'];
  style.fontSize = number(own['font-size'], parent.fontSize);
  if (own['font-weight']) style.fontWeight = own['font-weight'];
  if (own['text-anchor']) style.textAnchor = own['text-anchor'];
  for (const property of ['mask', 'filter', 'marker-start', 'marker-mid', 'marker-end'])
    if (own[property] && own[property] !== 'none') note(`A ${property} was left out.`);
  return style;
}

function declarations(css: string): Record<string, string> {
  const found: Record<string, string> = {};
  for (const part of css.split(';')) {
    const colon = part.indexOf(':');
    if (colon > 0)
      found[part.slice(0, colon).trim()] = part
        .slice(colon + 1)
        .replace('!important', '')
        .trim();
  }
  return found;
}

function paint(
  value: string,
  inherited: PaintStyle | null,
  current: Hex,
  note: (text: string) => void,
): PaintStyle | null {
  const text = value.trim();
  if (text === 'none' || text === 'transparent') return null;
  if (text === 'inherit') return inherited;
  if (text.toLowerCase() === 'currentcolor') return { hex: current, gradient: null };
  const reference = /^url\(\s*["']?#([^"')]+)["']?\s*\)\s*(.*)$/.exec(text);
  if (reference) {
    const [, id = '', fallback = ''] = reference;
    return { hex: plainColour(fallback, null) ?? '#808080', gradient: id };
  }
  const colour = plainColour(text, null);
  if (colour === null) note(`The colour “${text.slice(0, 40)}” was not understood and became black.`);
  return { hex: colour ?? '#000000', gradient: null };
}

function plainColour(text: string, otherwise: Hex | null): Hex | null {
  const read = readColour(text);
  return read.ok ? read.hex : otherwise;
}

function number(text: string | undefined, otherwise: number): number {
  const value = Number.parseFloat(text ?? '');
  return Number.isFinite(value) && value >= 0 ? value : otherwise;
}

function share(text: string | undefined, otherwise: number): number {
  const value = Number.parseFloat(text ?? '');
  if (!Number.isFinite(value)) return otherwise;
  return Math.min(1, Math.max(0, text?.trim().endsWith('%') ? value / 100 : value));
}

function dashes(text: string): number[] {
  const values = text
    .split(/[\s,]+/)
    .map(Number.parseFloat)
    .filter((value) => Number.isFinite(value) && value >= 0);
  return values.some((value) => value > 0) ? values.slice(0, 32) : [];
}

import { readColour, type Hex } from '../colour/parse';
import type { LineCap, LineJoin } from '../recipe/recipe';
import type { XmlNode } from './xml';

/** The presentation properties that an imported drawing keeps, as they are inherited down the tree. */
export type Style = {
  fill: Hex | null;
  stroke: Hex | null;
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
};

/** SVG's initial values. */
export const INITIAL_STYLE: Style = {
  fill: '#000000',
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
};

type Rules = ReadonlyMap<string, Record<string, string>>;

/** Class rules (`.a, .b { … }`) of a <style> element; other selectors are left out. */
export function readClassRules(css: string): {
  rules: Map<string, Record<string, string>>;
  skipped: boolean;
} {
  const rules = new Map<string, Record<string, string>>();
  let skipped = false;
  const plain = css.replace(/\/\*[\s\S]*?\*\//g, '');
  for (const [, selectors = '', body = ''] of plain.matchAll(/([^{}]+)\{([^{}]*)\}/g)) {
    for (const selector of selectors.split(',').map((part) => part.trim())) {
      const match = /^\.([\w-]+)$/.exec(selector);
      if (match?.[1]) rules.set(match[1], { ...rules.get(match[1]), ...declarations(body) });
      else skipped = true;
    }
  }
  return { rules, skipped };
}

/** The style of `node` below `parent`: attributes, then class rules, then its style attribute. Notes what was left out. */
export function styleOf(node: XmlNode, parent: Style, rules: Rules, note: (text: string) => void): Style {
  const classes = (node.attributes.class ?? '').split(/\s+/).map((name) => rules.get(name) ?? {});
  const own: Record<string, string> = Object.assign(
    {},
    node.attributes,
    ...classes,
    declarations(node.attributes.style ?? ''),
  );
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
  for (const property of ['clip-path', 'mask', 'filter'])
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

function paint(value: string, inherited: Hex | null, current: Hex, note: (text: string) => void): Hex | null {
  const text = value.trim();
  if (text === 'none' || text === 'transparent') return null;
  if (text === 'inherit') return inherited;
  if (text.toLowerCase() === 'currentcolor') return current;
  if (text.startsWith('url(')) {
    const fallback = text.slice(text.indexOf(')') + 1).trim();
    note('A gradient or pattern paint was replaced by one plain colour.');
    return plainColour(fallback, null) ?? '#808080';
  }
  const colour = plainColour(text, null);
  if (colour === null) note(`The colour “${text.slice(0, 40)}” was not understood and became black.`);
  return colour ?? '#000000';
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

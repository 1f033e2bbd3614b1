import { escapeXml } from './print';
import type { XmlNode } from './xml';

/**
 * A part of an SVG file as a file of its own: the element, all that stands around it, and everything that others may
 * refer to, as definitions. So a renderer draws it just as it would in the whole.
 */
export function fragmentSvg(root: XmlNode, target: XmlNode, size: { width: number; height: number }): string {
  const way = new Set<XmlNode>();
  for (let node: XmlNode | null = target; node; node = node.parent) way.add(node);
  const write = (node: XmlNode): string => {
    if (node === target && node !== root) return whole(node);
    if (!way.has(node)) return aside(node);
    const attributes = node === root ? sized(node, size) : attributesOf(node);
    const inside = target === root ? node.parts.map(part).join('') : node.children.map(write).join('');
    return `<${node.name} ${attributes}>${inside}</${node.name}>`;
  };
  return write(root);
}

/** What draws itself; anything else is a definition, and stays as it is. */
const DRAWING = new Set([
  'g',
  'a',
  'switch',
  'svg',
  'use',
  'path',
  'rect',
  'circle',
  'ellipse',
  'line',
  'polyline',
  'polygon',
  'text',
  'image',
]);
/** What is never written: it draws nothing and may do harm. */
const LEFT_OUT = new Set([
  'script',
  'foreignObject',
  'metadata',
  'title',
  'desc',
  'animate',
  'animateTransform',
  'set',
  'animateMotion',
]);

function aside(node: XmlNode): string {
  if (node.name === 'style' || !DRAWING.has(node.name)) return whole(node);
  return hasId(node) ? `<defs>${whole(node)}</defs>` : '';
}

const hasId = (node: XmlNode): boolean => node.attributes.id !== undefined || node.children.some(hasId);

function whole(node: XmlNode): string {
  if (LEFT_OUT.has(node.name) || node.name.startsWith('foreign:')) return '';
  return `<${node.name} ${attributesOf(node)}>${node.parts.map(part).join('')}</${node.name}>`;
}

const part = (one: XmlNode | string): string => (typeof one === 'string' ? escapeXml(one) : whole(one));

const attributesOf = (node: XmlNode): string =>
  Object.entries(node.attributes)
    .filter(([name, value]) => isWritten(name, value))
    .map(([name, value]) => `${name}="${escapeXml(value)}"`)
    .join(' ');

function isWritten(name: string, value: string): boolean {
  if (!/^[A-Za-z_][\w.-]*$/.test(name) || /^on/i.test(name) || name === 'xmlns') return false;
  // References lead into the file alone.
  return name !== 'href' || value.startsWith('#') || /^data:image\//i.test(value);
}

function sized(root: XmlNode, { width, height }: { width: number; height: number }): string {
  const rest = { ...root, attributes: { ...root.attributes, width: String(width), height: String(height) } };
  return `xmlns="http://www.w3.org/2000/svg" ${attributesOf(rest)}`;
}

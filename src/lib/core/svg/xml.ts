import { SaxesParser } from 'saxes';
import { LIMITS } from '../recipe/limits';

/** An XML element as read: local name, attributes without prefix, child elements, and the text directly in it. */
export type XmlNode = { name: string; attributes: Record<string, string>; children: XmlNode[]; text: string };

export type XmlResult = { ok: true; root: XmlNode } | { ok: false; message: string };

const SVG_NAMESPACE = 'http://www.w3.org/2000/svg';
const DEEPEST = 200;
const MOST_NODES = 50_000;

/**
 * Reads the text of an SVG file into a tree, and nothing more: no entity is expanded beyond XML's own five, no
 * reference is followed. Refused: declarations of entities, other root elements, nesting or counts beyond reason.
 */
export function readSvgTree(
  text: string,
  { bytes = LIMITS.svgBytes as number, nodes = MOST_NODES } = {},
): XmlResult {
  if (text.length > bytes) {
    const most = bytes / 1e6;
    return {
      ok: false,
      message: `An SVG file may have at most ${most} MB; this one has ${(text.length / 1e6).toFixed(1)} MB.`,
    };
  }
  const reader = new TreeReader(nodes);
  return reader.read(text.replace(/^\uFEFF/, ''));
}

class TreeReader {
  private readonly stack: XmlNode[] = [];
  private root: XmlNode | null = null;
  private fault: string | null = null;
  private nodes = 0;

  constructor(private readonly mostNodes: number) {}

  read(text: string): XmlResult {
    if (!text.trimStart().startsWith('<'))
      return { ok: false, message: 'The file is not an SVG: it does not begin with a tag.' };
    const parser = new SaxesParser({ xmlns: true });
    parser.on('doctype', (doctype) => {
      if (doctype.includes('<!ENTITY'))
        this.stop('The SVG declares entities of its own; save it without them.');
    });
    parser.on('error', (error) =>
      this.stop(`The SVG is damaged: ${error.message.replace(/^\d+:\d+: /, '')}.`),
    );
    parser.on('opentag', (tag) => this.open(tag.uri, tag.local, tag.attributes));
    parser.on('text', (value) => {
      const top = this.stack[this.stack.length - 1];
      if (top) top.text += value;
    });
    parser.on('closetag', () => this.stack.pop());
    for (let at = 0; at < text.length && this.fault === null; at += 65_536)
      parser.write(text.slice(at, at + 65_536));
    if (this.fault === null) parser.close();
    if (this.fault !== null) return { ok: false, message: this.fault };
    return this.root
      ? { ok: true, root: this.root }
      : { ok: false, message: 'The file holds no <svg> element.' };
  }

  private open(
    uri: string,
    local: string,
    attributes: Record<string, { local: string; value: string }>,
  ): void {
    if (this.fault !== null) return;
    this.nodes += 1;
    if (this.nodes > this.mostNodes)
      return this.stop(`The SVG has more than ${this.mostNodes} elements; simplify it first.`);
    if (this.stack.length > DEEPEST)
      return this.stop(`The SVG nests elements more than ${DEEPEST} deep; simplify it first.`);
    const known = uri === SVG_NAMESPACE || uri === '';
    if (!this.root && (!known || local !== 'svg'))
      return this.stop(`The file’s root element is <${local}>, not <svg>.`);
    const node: XmlNode = {
      name: known ? local : `foreign:${local}`,
      attributes: Object.fromEntries(
        Object.values(attributes).map((attribute) => [attribute.local, attribute.value]),
      ),
      children: [],
      text: '',
    };
    const parent = this.stack[this.stack.length - 1];
    if (parent) parent.children.push(node);
    else this.root = node;
    this.stack.push(node);
  }

  private stop(message: string): void {
    this.fault ??= message;
  }
}

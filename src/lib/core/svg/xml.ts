import { SaxesParser } from 'saxes';
import { LIMITS } from '../recipe/limits';

/**
 * An XML element as read: local name, attributes without prefix, child elements, the text directly in it, and both in
 * their order.
 */
export type XmlNode = {
  name: string;
  attributes: Record<string, string>;
  children: XmlNode[];
  text: string;
  parts: (XmlNode | string)[];
  parent: XmlNode | null;
};

export type XmlResult = { ok: true; root: XmlNode } | { ok: false; message: string };

const SVG_NAMESPACE = 'http://www.w3.org/2000/svg';
const DEEPEST = 200;
const MOST_NODES = 50_000;
/** Attributes of all elements together. */
const MOST_ATTRIBUTES = 600_000;
/** Entities of a file, and characters of one: enough for the namespaces that drawing programs abbreviate. */
const MOST_ENTITIES = 60;
const LONGEST_ENTITY = 200;
const PIECE = 4096;

/**
 * Reads the text of an SVG file into a tree, and nothing more: no reference is followed. Entities that stand for a short
 * plain text are put in; those that refer to files or to each other refuse the file, as do other root elements, nesting
 * or counts beyond reason.
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
  const reader = new TreeReader(nodes, 2 * text.length + 100_000);
  return reader.read(text.replace(/^\uFEFF/, ''));
}

class TreeReader {
  private readonly stack: XmlNode[] = [];
  private root: XmlNode | null = null;
  private fault: string | null = null;
  private nodes = 0;
  private attributes = 0;
  private characters = 0;

  constructor(
    private readonly mostNodes: number,
    /** Entities could make a small file long. */
    private readonly mostCharacters: number,
  ) {}

  read(text: string): XmlResult {
    if (!text.trimStart().startsWith('<'))
      return { ok: false, message: 'The file is not an SVG: it does not begin with a tag.' };
    const parser = new SaxesParser({ xmlns: true });
    parser.on('doctype', (doctype) => {
      const entities = plainEntities(doctype);
      if (typeof entities === 'string') return this.stop(entities);
      Object.assign(parser.ENTITIES, entities);
    });
    parser.on('error', (error) =>
      this.stop(`The SVG is damaged: ${error.message.replace(/^\d+:\d+: /, '').slice(0, 200)}.`),
    );
    parser.on('opentag', (tag) => this.open(tag.uri, tag.local, tag.attributes));
    parser.on('text', (value) => this.say(value));
    parser.on('cdata', (value) => this.say(value));
    parser.on('closetag', () => this.stack.pop());
    // In small pieces: after a fault the parser still goes through the piece that it has, which deep nesting makes slow.
    for (let at = 0; at < text.length && this.fault === null; at += PIECE)
      parser.write(text.slice(at, at + PIECE));
    if (this.fault === null) parser.close();
    if (this.fault !== null) return { ok: false, message: this.fault };
    return this.root
      ? { ok: true, root: this.root }
      : { ok: false, message: 'The file holds no <svg> element.' };
  }

  private say(value: string): void {
    const top = this.stack[this.stack.length - 1];
    if (!top || !this.spend(value.length)) return;
    top.text += value;
    top.parts.push(value);
  }

  private spend(characters: number): boolean {
    this.characters += characters;
    if (this.characters <= this.mostCharacters) return true;
    this.stop('The SVG’s entities make it many times as long as it is; save it without them.');
    return false;
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
      return this.stop(`The file’s root element is <${local.slice(0, 60)}>, not <svg>.`);
    const list = Object.values(attributes);
    this.attributes += list.length;
    if (this.attributes > MOST_ATTRIBUTES)
      return this.stop(`The SVG has more than ${MOST_ATTRIBUTES} attributes; simplify it first.`);
    if (!this.spend(list.reduce((sum, { value }) => sum + value.length, 0))) return;
    const parent = this.stack[this.stack.length - 1] ?? null;
    const node: XmlNode = {
      name: known ? local : `foreign:${local}`,
      attributes: Object.fromEntries(list.map((attribute) => [attribute.local, attribute.value])),
      children: [],
      text: '',
      parts: [],
      parent,
    };
    if (parent) {
      parent.children.push(node);
      parent.parts.push(node);
    } else this.root = node;
    this.stack.push(node);
  }

  private stop(message: string): void {
    this.fault ??= message;
  }
}

/** The entities that a document type declares as plain text, or a sentence where it declares others. */
function plainEntities(doctype: string): Record<string, string> | string {
  const found: Record<string, string> = {};
  let at = doctype.indexOf('<!ENTITY');
  for (let count = 0; at >= 0; count += 1, at = doctype.indexOf('<!ENTITY', at + 8)) {
    // One declaration is short: what is longer is none of those that are taken.
    const text = doctype.slice(at, at + LONGEST_ENTITY + 120);
    const match = /^<!ENTITY\s+([A-Za-z_][\w.-]{0,60})\s+(?:"([^"]*)"|'([^']*)')\s*>/.exec(text);
    const value = match?.[2] ?? match?.[3] ?? '';
    if (!match?.[1] || value.length > LONGEST_ENTITY || /[&<%]/.test(value) || count >= MOST_ENTITIES)
      return 'The SVG declares entities that refer to others, to files or to long texts; save it without them.';
    found[match[1]] = value;
  }
  return found;
}

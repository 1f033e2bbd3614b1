import { compile, type Options } from 'css-select';
import { parse, generate, walk, type CssNode, type Rule, type Selector } from 'css-tree';
import type { XmlNode } from './xml';

/** A style rule: what it matches, how it weighs against others, and its declarations. */
export type StyleRule = {
  matches: (node: XmlNode) => boolean;
  weight: number;
  order: number;
  values: Declaration[];
};

export type Declaration = { name: string; value: string; important: boolean };

/** Style sheets of a file are at most so long, and have at most so many selectors. */
const MOST_CHARACTERS = 400_000;
const MOST_SELECTORS = 4000;
/** Elements times rules that may have to be held against each other. */
const MOST_MATCHES = 6_000_000;

/**
 * The style rules of a file (CSS Syntax 3 by css-tree, Selectors 4 by css-select), found quickly by the id, class or
 * name that an element must have for a rule to match.
 */
export class StyleSheet {
  private readonly byKey = new Map<string, StyleRule[]>();
  private selectors = 0;
  private order = 0;
  private matches = 0;
  private readonly notes: (text: string) => void;

  constructor(note: (text: string) => void) {
    this.notes = note;
  }

  get empty(): boolean {
    return this.selectors === 0;
  }

  /** Adds the text of a <style> element. */
  add(css: string): void {
    if (css.length > MOST_CHARACTERS) {
      this.notes(`A style sheet of more than ${MOST_CHARACTERS / 1000} kB was left out.`);
      return;
    }
    let tree: CssNode;
    try {
      tree = parse(css, { parseValue: false, parseCustomProperty: false, onParseError: () => undefined });
    } catch {
      this.notes('A style sheet that cannot be read was left out.');
      return;
    }
    walk(tree, { visit: 'Rule', enter: (rule) => this.rule(rule) });
    let skipped = false;
    walk(tree, { visit: 'Atrule', enter: () => (skipped = true) });
    if (skipped) this.notes('Rules for media, animations or fonts in the style sheet were passed over.');
  }

  private rule(rule: Rule): void {
    if (rule.prelude.type !== 'SelectorList') return;
    const values = declarationsIn(rule.block);
    if (values.length === 0) return;
    for (const selector of rule.prelude.children) {
      if (selector.type !== 'Selector') continue;
      this.selectors += 1;
      if (this.selectors > MOST_SELECTORS) {
        if (this.selectors === MOST_SELECTORS + 1)
          this.notes(`Of the style sheet the first ${MOST_SELECTORS} rules were kept.`);
        return;
      }
      const matches = matcherOf(generate(selector));
      if (!matches) {
        this.notes('Style rules whose selectors cannot be used were left out.');
        continue;
      }
      const { key, weight } = weighed(selector);
      const made = { matches, weight, order: this.order++, values };
      const held = this.byKey.get(key);
      if (held) held.push(made);
      else this.byKey.set(key, [made]);
    }
  }

  /** The declarations that hold for an element, those that count more later. */
  declarations(node: XmlNode): Declaration[] {
    if (this.selectors === 0) return [];
    const { id, class: classes = '' } = node.attributes;
    const keys = ['*', node.name, ...(id ? [`#${id}`] : [])];
    for (const name of classes.split(/\s+/, 40)) if (name) keys.push(`.${name}`);
    const found: StyleRule[] = [];
    for (const key of keys) {
      const rules = this.byKey.get(key) ?? [];
      this.matches += rules.length;
      if (this.matches > MOST_MATCHES) {
        this.notes('The style sheet has too many rules for so many elements; not all of them were used.');
        return [];
      }
      for (const rule of rules) if (rule.matches(node)) found.push(rule);
    }
    return found
      .sort((one, other) => one.weight - other.weight || one.order - other.order)
      .flatMap(({ values }) => values);
  }
}

/** The declarations of a `style` attribute. */
export function inlineDeclarations(css: string): Declaration[] {
  if (css.length > 20_000) return [];
  try {
    return declarationsIn(
      parse(css, { context: 'declarationList', parseValue: false, onParseError: () => undefined }),
    );
  } catch {
    return [];
  }
}

function declarationsIn(block: CssNode): Declaration[] {
  const found: Declaration[] = [];
  if (!('children' in block) || !block.children) return found;
  for (const child of block.children)
    if (child.type === 'Declaration')
      found.push({
        name: child.property.toLowerCase(),
        value: (child.value.type === 'Raw' ? child.value.value : generate(child.value)).trim(),
        important: child.important !== false,
      });
  return found;
}

/** Where rules of a selector are kept, and its specificity (Selectors 4, section 17) as one number. */
function weighed(selector: Selector): { key: string; weight: number } {
  let [ids, classes, names] = [0, 0, 0];
  walk(selector, (node) => {
    if (node.type === 'IdSelector') ids += 1;
    else if (node.type === 'ClassSelector' || node.type === 'AttributeSelector') classes += 1;
    else if (node.type === 'PseudoClassSelector') classes += 1;
    else if (node.type === 'TypeSelector' && node.name !== '*') names += 1;
  });
  let key = '*';
  for (const part of selector.children) {
    if (part.type === 'Combinator') key = '*';
    else if (part.type === 'IdSelector') key = `#${part.name}`;
    else if (part.type === 'ClassSelector' && !key.startsWith('#')) key = `.${part.name}`;
    else if (part.type === 'TypeSelector' && key === '*' && part.name !== '*') key = part.name;
  }
  return { key, weight: Math.min(ids, 99) * 10_000 + Math.min(classes, 99) * 100 + Math.min(names, 99) };
}

function matcherOf(selector: string): ((node: XmlNode) => boolean) | null {
  if (selector.length > 1000) return null;
  try {
    return compile<XmlNode, XmlNode>(selector, OPTIONS);
  } catch {
    return null;
  }
}

const OPTIONS: Options<XmlNode, XmlNode> = {
  xmlMode: true,
  adapter: {
    isTag: (node): node is XmlNode => typeof node === 'object',
    getName: (node) => node.name,
    getChildren: (node) => node.children,
    getParent: (node) => node.parent,
    getSiblings: (node) => node.parent?.children ?? [node],
    getText: (node) => node.text,
    getAttributeValue: (node, name) => node.attributes[name],
    hasAttrib: (node, name) => node.attributes[name] !== undefined,
    removeSubsets: (nodes) => nodes,
    equals: (one, other) => one === other,
  },
};

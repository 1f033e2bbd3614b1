import type { XmlNode } from './xml';

/** What Isle kept in the metadata of a file, as plain JSON that must still be checked. */
export type KeptInFile = {
  /** The palettes and assets of the whole file; `null` where it holds none of ours. */
  library: unknown;
  patterns: unknown[];
  /** The <pattern> elements that our metadata describes, and those that only take over from them. */
  ours: Set<XmlNode>;
  /** A sentence for each part that cannot be read. */
  notes: string[];
};

/** Finds what {@link librarySvg} kept in a file. */
export function readKept(root: XmlNode): KeptInFile {
  const kept: KeptInFile = { library: null, patterns: [], ours: new Set(), notes: [] };
  const parse = (text: string, what: string): unknown => {
    try {
      return JSON.parse(text) as unknown;
    } catch {
      kept.notes.push(`The metadata of ${what} is damaged, so it was read as drawn.`);
      return null;
    }
  };
  const ids = new Set<string>();
  const visit = (node: XmlNode): void => {
    if (node.name === 'pattern') {
      const metadata = node.children.find((child) => child.name === 'metadata');
      const own = metadata?.children.find((child) => child.name === 'foreign:kept-pattern');
      const title = node.children.find((child) => child.name === 'title')?.text ?? 'a pattern';
      const data = own ? parse(own.text, `“${title}”`) : null;
      if (data !== null) {
        kept.patterns.push(data);
        kept.ours.add(node);
        ids.add(node.attributes.id ?? '');
      }
    } else if (node.name === 'foreign:kept-library') kept.library = parse(node.text, 'the file');
    for (const child of node.children) visit(child);
  };
  visit(root);
  const followers = (node: XmlNode): void => {
    const href = node.attributes.href ?? '';
    if (node.name === 'pattern' && href.startsWith('#') && ids.has(href.slice(1))) kept.ours.add(node);
    for (const child of node.children) followers(child);
  };
  if (ids.size > 0) followers(root);
  return kept;
}

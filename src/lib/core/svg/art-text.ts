import { translation } from '../geom/affine';
import { parsePath, transformPath, type Path } from '../geom/path';
import type { StyleSheet } from './css';
import { lengthOf, type Measures, type Side } from './lengths';
import { propertiesOf, styleOf, type Style } from './style';
import type { XmlNode } from './xml';

/** Sets a line of text as path data from (0, 0) on its baseline; a sentence where that cannot be done. */
export type SetText = (
  text: string,
  font: { family: string; weight: string; size: number },
) => { ok: true; d: string; width: number } | { ok: false; message: string };

/** A stretch of text in one style, where it begins, and its outlines. */
export type TextRun = { path: Path; style: Style };

type Part = { text: string; style: Style; x: number | null; y: number | null; dx: number; dy: number };

/** What one text may be. */
const MOST_LETTERS = 5000;
const MOST_PARTS = 400;

/**
 * A <text> as outlines: its parts one after the other, each where its own x and y say, moved by dx and dy, anchored as
 * SVG 2 (section 11.10) has it: each part that begins at a place of its own is anchored by itself.
 */
export function textRuns(
  node: XmlNode,
  style: Style,
  {
    sheet,
    measures,
    setText,
    note,
  }: { sheet: StyleSheet; measures: Measures; setText: SetText | null; note: (text: string) => void },
): TextRun[] {
  const parts: Part[] = [];
  gather(node, style, parts, { sheet, measures, note }, 0);
  const letters = parts.reduce((sum, { text }) => sum + text.length, 0);
  if (letters > MOST_LETTERS || parts.length > MOST_PARTS) {
    note(`A text of more than ${MOST_LETTERS} letters was left out.`);
    return [];
  }
  if (parts.every(({ text }) => text.trim() === '')) return [];
  const set =
    setText ?? (() => ({ ok: false as const, message: 'Text was left out; turn it into outlines first.' }));
  const runs: TextRun[] = [];
  let at = { x: 0, y: 0 };
  let chunk: { runs: TextRun[]; from: number; anchor: string } = { runs: [], from: 0, anchor: 'start' };
  const close = (): void => {
    const wide = at.x - chunk.from;
    const shift = { middle: -wide / 2, end: -wide }[chunk.anchor] ?? 0;
    for (const run of chunk.runs)
      runs.push(shift === 0 ? run : { ...run, path: transformPath(translation(shift, 0), run.path) });
  };
  for (const [index, part] of trimmed(parts).entries()) {
    if (index === 0 || part.x !== null || part.y !== null) {
      close();
      at = { x: part.x ?? at.x, y: part.y ?? at.y };
      chunk = { runs: [], from: at.x, anchor: part.style.textAnchor };
    }
    at = { x: at.x + part.dx, y: at.y + part.dy };
    if (part.text === '') continue;
    const { fontFamily: family, fontWeight: weight, fontSize: size } = part.style;
    const line = set(part.text, { family, weight, size });
    if (!line.ok) {
      note(line.message);
      continue;
    }
    const read = parsePath(line.d);
    if (read.ok && part.style.visible)
      chunk.runs.push({ path: transformPath(translation(at.x, at.y), read.path), style: part.style });
    at = { ...at, x: at.x + line.width };
  }
  close();
  return runs;
}

function gather(
  node: XmlNode,
  style: Style,
  parts: Part[],
  source: { sheet: StyleSheet; measures: Measures; note: (text: string) => void },
  depth: number,
): void {
  const measures = { ...source.measures, fontSize: style.fontSize };
  const first = (name: string, side: Side): number | null => {
    const text = node.attributes[name]
      ?.trim()
      .slice(0, 200)
      .split(/[\s,]+/)[0];
    return text ? lengthOf(text, measures, side) : null;
  };
  let own: Pick<Part, 'x' | 'y' | 'dx' | 'dy'> = {
    x: first('x', 'x') ?? (node.name === 'text' ? 0 : null),
    y: first('y', 'y') ?? (node.name === 'text' ? 0 : null),
    dx: first('dx', 'x') ?? 0,
    dy: first('dy', 'y') ?? 0,
  };
  const none = { x: null, y: null, dx: 0, dy: 0 };
  if (node.parts.length === 0) parts.push({ text: '', style, ...own });
  for (const part of node.parts) {
    if (typeof part === 'string') {
      parts.push({ text: part.replace(/\s+/g, ' '), style, ...own });
      own = none;
    } else if ((part.name === 'tspan' || part.name === 'a' || part.name === 'textPath') && depth < 20) {
      if (part.name === 'textPath') source.note('Text along a path was set in a straight line.');
      const properties = propertiesOf(part, source.sheet);
      if (properties.display?.trim() === 'none') continue;
      const inner = styleOf(properties, style, source.measures.viewport, source.note);
      if (own !== none) parts.push({ text: '', style, ...own });
      own = none;
      gather(part, inner, parts, source, depth + 1);
    }
  }
}

/** White space is collapsed: none at the beginning, none at the end, never two of it. */
function trimmed(parts: readonly Part[]): Part[] {
  let space = true;
  const kept = parts.map((part) => {
    let { text } = part;
    if (space) text = text.replace(/^ /, '');
    if (text !== '') space = text.endsWith(' ');
    return { ...part, text };
  });
  for (let index = kept.length - 1; index >= 0; index -= 1) {
    const part = kept[index]!;
    if (part.text === '') continue;
    kept[index] = { ...part, text: part.text.replace(/ $/, '') };
    break;
  }
  return kept;
}

import type { Box } from '../geom/box';
import { pageSize, type ClientSheet, type SheetItem, type SheetWidth } from './client-sheet';

/** A line of text, mm: its left end and baseline, and how it is set. */
export type SetLine = {
  text: string;
  x: number;
  y: number;
  size: number;
  bold: boolean;
  muted: boolean;
};

/** Something on a page: where its picture lies, mm, and the lines below it. */
export type Arranged = { id: string; box: Box; lines: SetLine[] };

export type SheetPage = { head: SetLine[]; items: Arranged[]; foot: SetLine[] };

/** What the arranging must know of each thing: its title, its facts, and width over height of its picture; `null` for words alone. */
export type ItemFacts = { title: string; facts: string; aspect: number | null };

/** How wide a text is, mm, at a size in mm. */
export type TextWidth = (text: string, size: number, bold: boolean) => number;

const SHARES: Record<SheetWidth, number> = { third: 2, half: 3, whole: 6 };
const COLUMNS = 6;
/** A row's pictures take at most so much of what a page has room for. */
const TALLEST = 0.74;

/**
 * Things in rows, from left to right and down, on as many pages as they need: no picture is cut, none is larger than its
 * column, and what belongs together stays on one page. Lengths mm.
 */
export function arrangeSheet(
  sheet: ClientSheet,
  factsOf: (item: SheetItem) => ItemFacts,
  widthOf: TextWidth,
  foot: string,
): SheetPage[] {
  const { width, height } = pageSize(sheet);
  const unit = Math.min(width, height) / 210;
  const margin = 15 * unit;
  const gap = 7 * unit;
  const inner = width - 2 * margin;
  const bottom = height - margin - 5 * unit;
  const text = { title: 3.3 * unit, plain: 2.9 * unit, line: 4.3 * unit };
  const pages: SheetPage[] = [];
  let page: SheetPage = { head: [], items: [], foot: [] };
  let y = margin;
  const fresh = (): void => {
    page = { head: [], items: [], foot: [] };
    pages.push(page);
    y = margin;
  };
  fresh();
  if (sheet.line !== '') {
    const size = 9 * unit;
    for (const line of wrapped(sheet.line, inner, (one) => widthOf(one, size, true))) {
      y += size * 1.1;
      page.head.push({ text: line, x: margin, y, size, bold: true, muted: false });
    }
    y += 2 * unit;
  }
  for (const line of wrapped(sheet.words, inner * 0.72, (one) => widthOf(one, text.title, false))) {
    y += text.line * 1.1;
    page.head.push({ text: line, x: margin, y, size: text.title, bold: false, muted: false });
  }
  if (page.head.length > 0) y += gap;

  for (const row of rowsOf(sheet.items)) {
    const room = bottom - margin;
    const cells = row.map(({ item, column }) => {
      const share = SHARES[item.width];
      const wide = (inner - gap * (COLUMNS - 1)) / COLUMNS;
      const box = { x: margin + column * (wide + gap), width: share * wide + (share - 1) * gap };
      const facts = factsOf(item);
      const most = facts.aspect === null ? Infinity : 4;
      const lines = [
        ...linesOf(facts.title, box.width, text.title, true, widthOf, false).slice(0, 2),
        ...linesOf(facts.facts, box.width, text.plain, false, widthOf, true).slice(0, 2),
        ...linesOf(item.caption, box.width, text.plain, false, widthOf, false).slice(0, most),
      ];
      return { item, box, facts, lines };
    });
    const words = Math.max(0, ...cells.map(({ lines }) => lines.length)) * text.line + 2 * unit;
    const tallest = Math.min(
      room * TALLEST,
      Math.max(0, ...cells.map(({ facts, box }) => (facts.aspect === null ? 0 : box.width / facts.aspect))),
    );
    if (y + tallest + words > bottom && (page.items.length > 0 || page.head.length > 0)) {
      // Below the head of the first page a row may be a little lower, rather than leave that page without a picture.
      const low = bottom - y - words;
      const first = page.items.length === 0 && low > tallest * 0.55;
      if (!first) fresh();
    }
    const tall = Math.max(0, Math.min(tallest, bottom - y - words));
    for (const { item, box, facts, lines } of cells) {
      const own = facts.aspect === null ? null : fitted(box.width, tall, facts.aspect);
      const picture: Box = own
        ? { x: box.x, y: y + tall - own.height, ...own }
        : { x: box.x, y, width: box.width, height: 0 };
      let at = own ? y + tall + 1.2 * unit : y;
      const set = lines.map((line): SetLine => {
        at += text.line;
        return { ...line, x: box.x, y: at };
      });
      page.items.push({ id: item.id, box: picture, lines: set });
    }
    y += tall + words + gap;
  }
  pages.forEach((one, index) => {
    const size = 2.6 * unit;
    const line = { y: height - margin * 0.55, size, bold: false, muted: true };
    const number = `${index + 1} / ${pages.length}`;
    one.foot.push({ ...line, text: foot, x: margin });
    one.foot.push({ ...line, text: number, x: width - margin - widthOf(number, size, false) });
  });
  return pages;
}

/** Items with the column that each begins in, row by row. */
function rowsOf(items: readonly SheetItem[]): { item: SheetItem; column: number }[][] {
  const rows: { item: SheetItem; column: number }[][] = [];
  let column = COLUMNS;
  for (const item of items) {
    const share = SHARES[item.width];
    if (column + share > COLUMNS) {
      rows.push([]);
      column = 0;
    }
    rows[rows.length - 1]!.push({ item, column });
    column += share;
  }
  return rows;
}

const fitted = (width: number, height: number, aspect: number): { width: number; height: number } =>
  width / aspect <= height ? { width, height: width / aspect } : { width: height * aspect, height };

const linesOf = (
  words: string,
  width: number,
  size: number,
  bold: boolean,
  widthOf: TextWidth,
  muted: boolean,
): Omit<SetLine, 'x' | 'y'>[] =>
  wrapped(words, width, (one) => widthOf(one, size, bold)).map((text) => ({ text, size, bold, muted }));

/** Words in lines that are no wider than asked for; a word that is wider than that is broken. */
export function wrapped(text: string, width: number, widthOf: (text: string) => number): string[] {
  const lines: string[] = [];
  for (const paragraph of text.split('\n')) {
    let line = '';
    for (const word of paragraph.split(/\s+/).filter(Boolean)) {
      const longer = line === '' ? word : `${line} ${word}`;
      if (widthOf(longer) <= width) {
        line = longer;
        continue;
      }
      if (line !== '') lines.push(line);
      line = word;
      while (widthOf(line) > width && line.length > 1) {
        let fits = 1;
        while (fits < line.length - 1 && widthOf(line.slice(0, fits + 1)) <= width) fits += 1;
        lines.push(line.slice(0, fits));
        line = line.slice(fits);
      }
    }
    if (line !== '') lines.push(line);
    else if (paragraph === '' && lines.length > 0 && text.trim() !== '') lines.push('');
  }
  while (lines[lines.length - 1] === '') lines.pop();
  return lines;
}

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { arrangeSheet, wrapped, type ItemFacts, type SheetPage } from './arrange';
import {
  freshSheet,
  PAPER_NAMES,
  pageSize,
  SHEET_WIDTHS,
  type ClientSheet,
  type SheetItem,
} from './client-sheet';

/** A text of equal letters: what is measured is what is counted. */
const widthOf = (text: string, size: number): number => text.length * size * 0.5;
const item = (id: string, over: Partial<SheetItem> = {}): SheetItem => ({
  ...{ id, kind: 'mock-up', of: id, width: 'half', caption: '' },
  ...over,
});
const facts = (aspects: Record<string, number | null> = {}): ((of: SheetItem) => ItemFacts) => {
  return ({ id }) => ({
    title: `Title ${id}`,
    facts: '10 × 10 mm',
    aspect: id in aspects ? aspects[id]! : 1.5,
  });
};
const arranged = (sheet: ClientSheet, aspects: Record<string, number | null> = {}): SheetPage[] =>
  arrangeSheet(sheet, facts(aspects), widthOf, 'Lido');

describe('a client sheet', () => {
  it('lays things in rows by their widths, in their order, with all of it below and beside each other', () => {
    const items = [item('a', { width: 'whole' }), item('b'), item('c'), item('d', { width: 'third' })];
    const pages = arranged({ ...freshSheet(''), across: false, items });
    const placed = pages.flatMap((page) => page.items);
    expect(placed.map(({ id }) => id)).toEqual(['a', 'b', 'c', 'd']);
    const [a, b, c] = placed as [...typeof placed] & { 0: (typeof placed)[0] };
    expect(a!.box.width / a!.box.height).toBeCloseTo(1.5, 9);
    expect(b!.box.y).toBeCloseTo(c!.box.y, 9);
    expect(c!.box.x).toBeGreaterThan(b!.box.x + b!.box.width);
    // A half and its gap are half of what the page has inside: 210 − 2 · 15 = 180 mm, the gap 7 mm.
    expect(b!.box.width).toBeCloseTo((180 - 7) / 2, 6);
  });

  it('keeps everything on its page and apart, whatever is on it', () => {
    const one = fc.record({
      kind: fc.constantFrom('mock-up', 'note') as fc.Arbitrary<SheetItem['kind']>,
      width: fc.constantFrom(...SHEET_WIDTHS),
      caption: fc.stringMatching(/^[a-z \n]{0,240}$/),
      aspect: fc.option(fc.double({ min: 0.05, max: 20, noNaN: true })),
    });
    fc.assert(
      fc.property(
        fc.array(one, { maxLength: 24 }),
        fc.constantFrom(...PAPER_NAMES),
        fc.boolean(),
        fc.stringMatching(/^[A-Za-z ]{0,100}$/),
        (plans, paper, across, line) => {
          const items = plans.map(({ kind, width, caption }, at) => item(`i${at}`, { kind, width, caption }));
          const aspects = Object.fromEntries(plans.map(({ aspect }, at) => [`i${at}`, aspect]));
          const sheet = { ...freshSheet(line), paper, across, items };
          const pages = arranged(sheet, aspects);
          const size = pageSize(sheet);
          expect(pages.flatMap((page) => page.items).map(({ id }) => id)).toEqual(items.map(({ id }) => id));
          for (const { items: placed, head, foot } of pages) {
            for (const { box, lines } of placed) {
              expect(box.x).toBeGreaterThan(0);
              expect(box.x + box.width).toBeLessThan(size.width);
              expect(box.y + box.height).toBeLessThan(size.height);
              for (const set of lines) {
                expect(set.x + widthOf(set.text, set.size)).toBeLessThan(size.width + 1e-6);
                expect(set.y).toBeLessThan(size.height + (aspectless(plans, placed) ? size.height : 0));
              }
            }
            const boxes = placed.map(({ box }) => box).filter(({ height }) => height > 0);
            for (const [at, a] of boxes.entries())
              for (const b of boxes.slice(at + 1)) {
                const apart =
                  a.x + a.width <= b.x ||
                  b.x + b.width <= a.x ||
                  a.y + a.height <= b.y ||
                  b.y + b.height <= a.y;
                expect(apart).toBe(true);
              }
            expect([...head, ...foot].every(({ y }) => y > 0 && y < size.height)).toBe(true);
          }
        },
      ),
      { numRuns: 60 },
    );
  });

  it('breaks words into lines that fit, and a word that is too long within itself', () => {
    const width = (text: string): number => text.length;
    expect(wrapped('one two three', 8, width)).toEqual(['one two', 'three']);
    expect(wrapped('a\n\nb', 8, width)).toEqual(['a', '', 'b']);
    expect(wrapped('abcdefghij', 4, width)).toEqual(['abcd', 'efgh', 'ij']);
    expect(wrapped('  ', 4, width)).toEqual([]);
  });
});

/** Whether a page holds words without a picture, which may be longer than a page. */
const aspectless = (
  plans: readonly { aspect: number | null }[],
  placed: readonly { id: string }[],
): boolean => placed.some(({ id }) => plans[Number(id.slice(1))]!.aspect === null);

import { createHash } from 'node:crypto';
import type { LayoutData, StrikeOff } from '../../contract/data';
import { done, fail, type Outcome } from '../../contract/failure';
import type { Box } from '../../core/geom/box';
import type { DisplayList } from '../../core/draw/list';
import { withBleed } from '../../core/draw/reframe';
import { Drawing } from '../../core/pdf/drawing';
import { PdfFile } from '../../core/pdf/file';
import { colourBar, cropMarks, registrationMarks } from '../../core/pdf/marks';
import { drawPage, onPaper } from '../../core/pdf/page';
import { freshRoom, PT_PER_PX } from '../../core/pdf/shape';
import { toPx } from '../../core/num/length';
import { sceneOf, sheetScene } from './layout-scene';
import { pdfSources, TooManyPixels } from './pdf-sources';
import type { Tools } from './tools';

/** Room for marks round the bleed, and where they begin and end, pt (3 mm from the trim, or beyond the bleed; 5 mm long). */
const MARKS = { room: 30, from: 8.504, length: 14.173 };
/** ISO 32000-1, annex C: no side of a page is longer. */
const LONGEST_PT = 14_400;

/** `marks` are those for cutting, `register` those for laying plates on each other, with a colour bar. */
export type PdfWish = { bleed: boolean; marks: boolean; register: boolean; ppi: number };

/** Layouts as one PDF, a page to each, in their order. */
export function layoutsPdf(
  tools: Tools,
  layouts: readonly LayoutData[],
  title: string,
  wish: PdfWish,
): Promise<Outcome<Uint8Array>> {
  const pages = layouts.map((layout): PdfPage => {
    const cut = wish.bleed ? layout.bleed : 0;
    return { name: layout.name, list: withBleed(sceneOf(tools.db, layout), cut), cut };
  });
  const [first] = layouts;
  const key = layouts.map(({ id, version }) => `${id} ${version}`).join();
  return pagesPdf(tools, pages, { title, author: first?.projectName ?? '', key }, wish);
}

/** A strike-off as a PDF of one page. */
export function strikeOffPdf(tools: Tools, sheet: StrikeOff, ppi: number): Promise<Outcome<Uint8Array>> {
  const page = { name: sheet.name, list: sheetScene(tools.db, sheet), cut: 0 };
  const facts = { title: sheet.name, author: '', key: `${sheet.id} ${sheet.version}` };
  return pagesPdf(tools, [page], facts, { bleed: false, marks: false, register: false, ppi });
}

export type PdfPage = { name: string; list: DisplayList; cut: number };

/** Drawn pages as one PDF; `key` names what they show, for the file's identifier. */
export async function pagesPdf(
  tools: Tools,
  pages: readonly PdfPage[],
  { title, author, key }: { title: string; author: string; key: string },
  wish: PdfWish,
): Promise<Outcome<Uint8Array>> {
  const { marks, register, ppi } = wish;
  const around = marks || register ? MARKS.room : 0;
  const papers = pages.map(({ list, cut }) => onPaper(list, { bleed: cut, room: around }));
  for (const [at, { media }] of papers.entries()) {
    const longest = Math.max(media.width, media.height);
    if (longest > LONGEST_PT) return tooLong(pages[at]!.name, longest);
  }
  try {
    const lists = pages.map(({ list }) => list);
    const sources = await pdfSources(tools, lists, ppi);
    const file = await PdfFile.begin({ title, author });
    const room = freshRoom();
    for (const [at, { list, cut }] of pages.entries()) {
      const { matrix, media, bleedBox, trim } = papers[at]!;
      const content = drawPage(file, list, { onPaper: matrix, paper: media, sources, room });
      const beside = markedPaper(file, { media, trim, bleed: cut * PT_PER_PX }, wish);
      file.page(`${content}\n${beside}`, { media, bleed: bleedBox, trim });
    }
    const id = createHash('sha256')
      .update(JSON.stringify([key, wish]))
      .digest('hex');
    return done(await file.bytes(id.slice(0, 32)));
  } catch (error) {
    if (error instanceof TooManyPixels) return fail('too_large', error.message, 'ppi');
    throw error;
  }
}

function tooLong(name: string, longest: number): ReturnType<typeof fail> {
  const most = Math.floor(toPx(LONGEST_PT / 72, 'in'));
  const metres = ((longest / 72) * 0.0254).toFixed(2);
  return fail(
    'too_large',
    `A PDF page is at most 5.08 m (${most} px) a side; “${name}” is ${metres} m. Make it smaller, or export it as PNG.`,
    'width',
  );
}

/** What stands beside the page for those who print and cut it. */
function markedPaper(
  file: PdfFile,
  { media, trim, bleed }: { media: Box; trim: Box; bleed: number },
  { marks, register }: PdfWish,
): string {
  const on = new Drawing(file, media);
  const from = Math.max(MARKS.from, bleed + 3);
  if (marks) cropMarks(on, trim, { from, length: MARKS.length });
  if (register) {
    registrationMarks(on, trim, from);
    colourBar(on, trim, from);
  }
  return on.content;
}

import { createHash } from 'node:crypto';
import type { LayoutData, StrikeOff } from '../../contract/data';
import { done, fail, type Outcome } from '../../contract/failure';
import { NO_INKS } from '../../core/colour/inks';
import type { Box } from '../../core/geom/box';
import type { DisplayList } from '../../core/draw/list';
import { withBleed } from '../../core/draw/reframe';
import { Drawing } from '../../core/pdf/drawing';
import { PdfFile, type Facts as PdfFacts } from '../../core/pdf/file';
import { colourBar, cropMarks, registrationMarks } from '../../core/pdf/marks';
import { drawPage, onPaper } from '../../core/pdf/page';
import { freshRoom, PT_PER_PX } from '../../core/pdf/shape';
import { toPx } from '../../core/num/length';
import { creditsDue } from '../../core/recipe/library';
import { inksInUse } from '../repo/layout-inks';
import { getLayout, lastChange, layoutInUse } from '../repo/layouts';
import { intentOf, screenProfile } from './press/intent';
import { sceneInUse, sheetScene } from './layout-scene';
import { pdfSources, TooManyPixels } from './pdf-sources';
import type { Tools } from './tools';

/** Room for marks round the bleed, and where they begin and end, pt (3 mm from the trim, or beyond the bleed; 5 mm long). */
const MARKS = { room: 30, from: 8.504, length: 14.173 };
/** ISO 32000-1, annex C: no side of a page is longer. */
const LONGEST_PT = 14_400;

/** `marks` are those for cutting, `register` those for laying plates on each other, with a colour bar. */
export type PdfWish = {
  bleed: boolean;
  marks: boolean;
  register: boolean;
  ppi: number;
  /** Of the level for print exchange, for the press of the project. */
  exchange?: boolean;
  /** Text as parts of fonts instead of outlines. */
  fonts?: boolean;
  /** A layer for each group of shapes, which readers show or hide. */
  layers?: boolean;
};

/** Layouts as one PDF, a page to each, in their order. */
export async function layoutsPdf(
  tools: Tools,
  layouts: readonly LayoutData[],
  title: string,
  wish: PdfWish,
): Promise<Outcome<Uint8Array>> {
  const used = layouts.map((layout) => layoutInUse(tools.db, layout));
  const pages = used.map((one): PdfPage => {
    const { name, bleed } = one.layout;
    const cut = wish.bleed ? bleed : 0;
    return { name, list: withBleed(sceneInUse(one), cut), cut };
  });
  const [first] = layouts;
  const key = layouts.map(({ id, version }) => `${id} ${version}`).join();
  const patterns = new Map(used.flatMap((one) => one.patterns).map((one) => [one.id, one]));
  const credits = creditsDue([...patterns.values()]).join('; ');
  const press = intentOf(tools.db, first?.projectId ?? '');
  if (wish.exchange && !press)
    return fail(
      'invalid',
      'A file for print exchange names its press, and this project has none yet; choose one under Plates, Press.',
      'exchange',
    );
  const changed = lastChange(
    tools.db,
    layouts.map(({ id }) => id),
  );
  const exchange = wish.exchange && press ? { press, screen: await screenProfile(), changed } : null;
  const facts = {
    ...{ title, author: first?.projectName ?? '', key, inks: inksInUse(tools.db, used) },
    ...(credits === '' ? {} : { credits }),
    ...(exchange ? { exchange } : press ? { press } : {}),
  };
  return pagesPdf(tools, pages, facts, wish);
}

/** A strike-off as a PDF of one page. */
export function strikeOffPdf(tools: Tools, sheet: StrikeOff, ppi: number): Promise<Outcome<Uint8Array>> {
  const page = { name: sheet.name, list: sheetScene(tools.db, sheet), cut: 0 };
  const layout = getLayout(tools.db, sheet.layoutId);
  const inks = layout.ok ? inksInUse(tools.db, [layoutInUse(tools.db, layout.value)]) : NO_INKS;
  const facts = { title: sheet.name, author: '', key: `${sheet.id} ${sheet.version}`, inks };
  return pagesPdf(tools, [page], facts, { bleed: false, marks: false, register: false, ppi });
}

export type PdfPage = { name: string; list: DisplayList; cut: number };

/** Drawn pages as one PDF; `key` names what they show, for the file's identifier. */
export async function pagesPdf(
  tools: Tools,
  pages: readonly PdfPage[],
  { key, ...facts }: PdfFacts & { key: string },
  wish: PdfWish,
): Promise<Outcome<Uint8Array>> {
  const { marks, register, fonts = false, layers = false, ppi } = wish;
  const around = marks || register ? MARKS.room : 0;
  const papers = pages.map(({ list, cut }) => onPaper(list, { bleed: cut, room: around }));
  for (const [at, { media }] of papers.entries()) {
    const longest = Math.max(media.width, media.height);
    if (longest > LONGEST_PT) return tooLong(pages[at]!.name, longest);
  }
  try {
    const lists = pages.map(({ list }) => list);
    const sources = await pdfSources(tools, lists, ppi, fonts);
    const file = await PdfFile.begin(facts);
    const room = freshRoom();
    for (const [at, { list, cut }] of pages.entries()) {
      const { matrix, media, bleedBox, trim } = papers[at]!;
      const content = drawPage(file, list, { onPaper: matrix, paper: media, sources, room, layers });
      const beside = markedPaper(file, { media, trim, bleed: cut * PT_PER_PX }, wish);
      file.page(`${content}\n${beside}`, { media, bleed: bleedBox, trim });
    }
    const id = createHash('sha256')
      .update(
        JSON.stringify([
          key,
          wishKey(wish),
          facts.inks?.all ?? [],
          facts.press?.name,
          facts.exchange?.changed,
        ]),
      )
      .digest('hex');
    return done(await file.bytes(id.slice(0, 32)));
  } catch (error) {
    if (error instanceof TooManyPixels) return fail('too_large', error.message, 'ppi');
    throw error;
  }
}

/** The same wish in one order, whoever says it. */
const wishKey = ({ bleed, marks, register, ppi, exchange, fonts, layers }: PdfWish): unknown[] => [
  ...[bleed, marks, register, ppi],
  ...[exchange, fonts, layers].map(Boolean),
];

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

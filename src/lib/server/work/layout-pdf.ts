import { createHash } from 'node:crypto';
import type { LayoutData } from '../../contract/data';
import { done, fail, type Outcome } from '../../contract/failure';
import type { Box } from '../../core/geom/box';
import { withBleed } from '../../core/draw/reframe';
import { Drawing } from '../../core/pdf/drawing';
import { PdfFile } from '../../core/pdf/file';
import { cropMarks, drawPage, onPaper } from '../../core/pdf/page';
import { toPx } from '../../core/num/length';
import { sceneOf } from './layout-scene';
import { pdfSources, TooManyPixels } from './pdf-sources';
import type { Tools } from './tools';

/** Room for marks round the bleed, and where they begin and end, pt (3 mm from the trim, or beyond the bleed; 5 mm long). */
const MARKS = { room: 30, from: 8.504, length: 14.173 };
const PT_PER_PX = 0.75;
/** ISO 32000-1, annex C: no side of a page is longer. */
const LONGEST_PT = 14_400;

export type PdfWish = { bleed: boolean; marks: boolean; ppi: number };

/** A layout as a PDF of one page. */
export async function layoutPdf(
  tools: Tools,
  layout: LayoutData,
  { bleed, marks, ppi }: PdfWish,
): Promise<Outcome<Uint8Array>> {
  const cut = bleed ? layout.bleed : 0;
  const list = withBleed(sceneOf(tools.db, layout), cut);
  const { matrix, media, bleedBox, trim } = onPaper(list, { bleed: cut, room: marks ? MARKS.room : 0 });
  const longest = Math.max(media.width, media.height);
  if (longest > LONGEST_PT) {
    const most = Math.floor(toPx(LONGEST_PT / 72, 'in'));
    return fail(
      'too_large',
      `A PDF page is at most 5.08 m (${most} px) a side; this one is ${((longest / 72) * 0.0254).toFixed(2)} m. Make the layout smaller, or export it as PNG.`,
      'width',
    );
  }
  try {
    const sources = await pdfSources(tools, list, ppi);
    const file = await PdfFile.begin({ title: layout.name, author: layout.projectName });
    const content = drawPage(file, list, { onPaper: matrix, paper: media, sources });
    const around = marks ? markedPaper(file, media, trim, cut * PT_PER_PX) : '';
    file.page(`${content}\n${around}`, { media, bleed: bleedBox, trim });
    const id = createHash('sha256')
      .update(JSON.stringify([layout.id, layout.version, bleed, marks, ppi]))
      .digest('hex');
    return done(await file.bytes(id.slice(0, 32)));
  } catch (error) {
    if (error instanceof TooManyPixels) return fail('too_large', error.message, 'ppi');
    throw error;
  }
}

function markedPaper(file: PdfFile, media: Box, trim: Box, bleed: number): string {
  const on = new Drawing(file, media);
  cropMarks(on, trim, { from: Math.max(MARKS.from, bleed + 3), length: MARKS.length });
  return on.content;
}

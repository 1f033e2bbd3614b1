import { ask } from '../state/api';
import type { Affine } from '$lib/core/geom/affine';
import type { Box } from '$lib/core/geom/box';
import { parsePath } from '$lib/core/geom/path';
import type { SetLine, SheetPage } from '$lib/core/sheet/arrange';
import { pageSize, type ClientSheet } from '$lib/core/sheet/client-sheet';
import { Drawing } from '$lib/core/pdf/drawing';
import { PdfFile } from '$lib/core/pdf/file';
import { showPicture } from '$lib/core/pdf/picture';
import { blobOf } from '../mockup/still';
import { OWN_FONTS, outlineIn } from '../state/fonts';
import { saveFile } from '../state/save-file';
import { INK, MUTED } from './paper';
import { pictureOf } from './pictures';
import type { SheetSources } from './sources';

const PT_PER_MM = 72 / 25.4;
const MM_PER_INCH = 25.4;

/** Saves the pages of a sheet as one PDF: layouts and words as drawings, all else as pictures at a resolution. */
export async function savePdf(
  name: string,
  sheet: ClientSheet,
  pages: readonly SheetPage[],
  sources: SheetSources,
  ppi: number,
  told: (share: number) => void,
): Promise<void> {
  const { width, height } = pageSize(sheet);
  const paper: Box = { x: 0, y: 0, width: width * PT_PER_MM, height: height * PT_PER_MM };
  const fromAbove: Affine = { a: PT_PER_MM, b: 0, c: 0, d: -PT_PER_MM, e: 0, f: paper.height };
  const file = await PdfFile.begin({ title: name });
  const total = pages.reduce((sum, { items }) => sum + items.length, 0);
  let made = 0;
  for (const page of pages) {
    const on = new Drawing(file, paper);
    const placed: ((to: Drawing) => void)[] = [];
    for (const { id, box, lines } of page.items) {
      const item = sheet.items.find((one) => one.id === id);
      const show = item && box.height > 0 ? await shown(file, sources, item, box, ppi) : null;
      if (show) placed.push(show);
      for (const line of lines) placed.push(await written(line));
      made += 1;
      told(made / total);
    }
    for (const line of [...page.head, ...page.foot]) placed.push(await written(line));
    on.within(fromAbove, () => {
      for (const show of placed) show(on);
    });
    file.page(on.content, { media: paper, bleed: paper, trim: paper });
  }
  const bytes = new Uint8Array(await file.bytes());
  saveFile(new Blob([bytes], { type: 'application/pdf' }), `${name}.pdf`);
}

/** Something on the sheet within its box, mm from above. */
async function shown(
  file: PdfFile,
  sources: SheetSources,
  item: ClientSheet['items'][number],
  { x, y, width, height }: Box,
  ppi: number,
): Promise<((to: Drawing) => void) | null> {
  if (item.kind === 'layout') {
    const answer = await ask('GET /layouts/{id}/pdf', { id: item.of, query: { ppi } });
    if (answer.ok) {
      const page = await file.embed(new Uint8Array(await answer.arrayBuffer()));
      const lies: Affine = {
        a: width / page.width,
        b: 0,
        c: 0,
        d: -height / page.height,
        e: x,
        f: y + height,
      };
      return (to) => to.within(lies, () => to.show(`layout ${item.of}`, () => page.form));
    }
  }
  const side = Math.ceil((Math.max(width, height) / MM_PER_INCH) * ppi);
  const picture = await pictureOf(sources, item, side);
  if (!picture) return null;
  const jpeg = new Uint8Array(await (await blobOf(onWhite(picture), 'image/jpeg')).arrayBuffer());
  const size = { width: picture.width, height: picture.height };
  return (to) =>
    showPicture(
      to,
      item.id,
      { ...size, jpeg, grey: false, alpha: null },
      {
        matrix: { a: width, b: 0, c: 0, d: height, e: x, f: y },
      },
    );
}

function onWhite(picture: HTMLCanvasElement): HTMLCanvasElement {
  const made = document.createElement('canvas');
  [made.width, made.height] = [picture.width, picture.height];
  const context = made.getContext('2d')!;
  context.fillStyle = '#ffffff';
  context.fillRect(0, 0, made.width, made.height);
  context.drawImage(picture, 0, 0);
  return made;
}

/** A line of words as outlines; letters that the font lacks become question marks. */
async function written({ text, x, y, size, bold, muted }: SetLine): Promise<(to: Drawing) => void> {
  const font = bold ? OWN_FONTS.bold : OWN_FONTS.plain;
  const whole = await outlineIn(font, text, size);
  const set = whole.ok
    ? whole
    : await outlineIn(font, text.replace(/[^\u0020-\u024f\u2010-\u2026]/g, '?'), size);
  const read = set.ok ? parsePath(set.d) : null;
  if (!read?.ok) return () => undefined;
  const lies: Affine = { a: 1, b: 0, c: 0, d: 1, e: x, f: y };
  return (to) => to.within(lies, () => to.fill(read.path, muted ? MUTED : INK));
}

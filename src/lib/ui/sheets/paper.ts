import type { SetLine, SheetPage, TextWidth } from '$lib/core/sheet/arrange';
import { zipSync } from 'fflate';
import { pageSize, type ClientSheet } from '$lib/core/sheet/client-sheet';
import { withResolution } from '$lib/core/formats/png';
import { blobOf } from '../mockup/still';
import { saveFile } from '../state/save-file';
import { pictureOf } from './pictures';
import type { SheetSources } from './sources';

const FAMILY = '"Schibsted Grotesk Variable", sans-serif';
const MM_TO_INCH = 25.4;
export const INK = '#14211f';
export const MUTED = '#5c6664';
const fontOf = (size: number, bold: boolean): string => `${bold ? 650 : 400} ${size}px ${FAMILY}`;

/** Widths of texts as this browser sets them. */
export function textWidths(): TextWidth {
  const context = document.createElement('canvas').getContext('2d')!;
  return (text, size, bold) => {
    // Small sizes are rounded by browsers: measured large, and taken back.
    context.font = fontOf(100, bold);
    return (context.measureText(text).width * size) / 100;
  };
}

/** Saves the pages of a sheet as PNG at a resolution: one as it is, several as a zip. */
export async function savePictures(
  name: string,
  sheet: ClientSheet,
  pages: readonly SheetPage[],
  sources: SheetSources,
  ppi: number,
  told: (share: number) => void,
): Promise<void> {
  const size = pageSize(sheet);
  const px = ppi / MM_TO_INCH;
  const files: Record<string, Uint8Array> = {};
  await document.fonts.ready;
  const total = sheet.items.length + pages.length;
  let made = 0;
  for (const [number, page] of pages.entries()) {
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [Math.round(size.width * px), Math.round(size.height * px)];
    const context = canvas.getContext('2d')!;
    context.fillStyle = '#ffffff';
    context.fillRect(0, 0, canvas.width, canvas.height);
    for (const { id, box, lines } of page.items) {
      const item = sheet.items.find((one) => one.id === id);
      const side = Math.ceil(Math.max(box.width, box.height) * px);
      const picture = item && box.height > 0 ? await pictureOf(sources, item, side) : null;
      context.imageSmoothingQuality = 'high';
      if (picture) context.drawImage(picture, box.x * px, box.y * px, box.width * px, box.height * px);
      for (const line of lines) write(context, line, px);
      made += 1;
      told(made / total);
    }
    for (const line of [...page.head, ...page.foot]) write(context, line, px);
    const bytes = new Uint8Array(await (await blobOf(canvas, 'image/png')).arrayBuffer());
    files[`${name} ${number + 1}.png`] = withResolution(bytes, ppi);
    made += 1;
    told(made / total);
  }
  const [only] = Object.values(files);
  if (pages.length === 1 && only)
    saveFile(new Blob([new Uint8Array(only)], { type: 'image/png' }), `${name}.png`);
  else
    saveFile(
      new Blob([new Uint8Array(zipSync(files, { level: 0 }))], { type: 'application/zip' }),
      `${name}.zip`,
    );
}

function write(
  context: CanvasRenderingContext2D,
  { text, x, y, size, bold, muted }: SetLine,
  px: number,
): void {
  context.font = fontOf(size * px, bold);
  context.fillStyle = muted ? MUTED : INK;
  context.fillText(text, x * px, y * px);
}

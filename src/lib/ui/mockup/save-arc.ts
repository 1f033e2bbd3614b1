import { withResolution } from '$lib/core/formats/png';
import { arcOf } from '$lib/core/mockup/arc';
import { cutSheet, type ObjectSpec } from '$lib/core/mockup/objects';
import { saveFile } from '../state/save-file';
import { drawSheet, type PageThere } from './draw-sheet';
import { blobOf } from './still';

const MM_TO_INCH = 25.4;
/** The art is drawn finer than it is asked for, so that bending it takes nothing away. */
const FINER = 1.5;
const MOST_SIDE = 8192;

/** Saves the developed wall of a cup whose art goes with the cone, as PNG that states its resolution; clear beyond the wall. */
export async function saveArc(object: ObjectSpec, page: PageThere, name: string, ppi: number): Promise<void> {
  const [arc, cut] = [arcOf(object), cutSheet(object)];
  if (!arc || !cut.ok) return;
  const px = ppi / MM_TO_INCH;
  const longer = Math.max(cut.sheet.width, cut.sheet.height);
  const art = await drawSheet(page, cut.sheet, Math.min(MOST_SIDE, Math.round(longer * px * FINER)));
  const { width, height } = art.picture;
  const source = art.picture.getContext('2d')!.getImageData(0, 0, width, height).data;
  const made = document.createElement('canvas');
  [made.width, made.height] = [Math.round(arc.width * px), Math.round(arc.height * px)];
  const out = new ImageData(made.width, made.height);
  for (let y = 0; y < made.height; y += 1)
    for (let x = 0; x < made.width; x += 1) {
      const from = arc.from({ x: (x + 0.5) / px, y: (y + 0.5) / px });
      if (!from) continue;
      const [u, v] = [from.x * art.px + art.bleed - 0.5, from.y * art.px + art.bleed - 0.5];
      const [left, top] = [Math.floor(u), Math.floor(v)];
      const [across, down] = [u - left, v - top];
      const to = (y * made.width + x) * 4;
      for (let channel = 0; channel < 3; channel += 1) {
        const at = (dx: number, dy: number): number =>
          source[((top + dy) * width + left + dx) * 4 + channel] ?? 255;
        const upper = at(0, 0) * (1 - across) + at(1, 0) * across;
        const lower = at(0, 1) * (1 - across) + at(1, 1) * across;
        out.data[to + channel] = upper * (1 - down) + lower * down;
      }
      out.data[to + 3] = 255;
    }
  made.getContext('2d')!.putImageData(out, 0, 0);
  const bytes = new Uint8Array(await (await blobOf(made, 'image/png')).arrayBuffer());
  const file = new Uint8Array(withResolution(bytes, ppi));
  saveFile(new Blob([file], { type: 'image/png' }), `${name}, developed.png`);
}

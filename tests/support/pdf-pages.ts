import { Resvg } from '@resvg/resvg-js';
import type { DisplayList } from '../../src/lib/core/draw/list';
import { maskGrey, maskPicture } from '../../src/lib/core/formats/mask-picture';
import { PdfFile, type Facts } from '../../src/lib/core/pdf/file';
import { drawPage, onPaper } from '../../src/lib/core/pdf/page';
import type { PdfSources } from '../../src/lib/core/pdf/picture';
import { layoutSvg } from '../../src/lib/core/svg/layout';
import type { Drawn } from './inside';

/** Px of a picture to each of a page. */
export const FINE = 2;

/** Nothing of pictures and fonts; masks as they are painted. */
export const bareSources: PdfSources = {
  picture: () => null,
  mask: (mask) => maskGrey(mask, FINE),
  text: () => null,
  effects: () => null,
};

/** A page as a PDF of its own. */
export async function pdfOf(
  list: DisplayList,
  {
    bleed = 0,
    layers = false,
    sources = {},
    ...facts
  }: Partial<Facts> & { bleed?: number; layers?: boolean; sources?: Partial<PdfSources> } = {},
): Promise<Uint8Array> {
  const { matrix, media, bleedBox, trim } = onPaper(list, { bleed, room: 0 });
  const file = await PdfFile.begin({ title: 'Test', ...facts });
  const from = { ...bareSources, ...sources };
  const content = drawPage(file, list, { onPaper: matrix, paper: media, sources: from, layers });
  file.page(content, { media, bleed: bleedBox, trim });
  return file.bytes('0123456789abcdef0123456789abcdef');
}

/** The same page as resvg draws its SVG with every copy by itself, {@link FINE} px to each of it. */
export function asSvg(list: DisplayList): Drawn {
  const [wide, high] = [list.width, list.height].map((side) => String(side * FINE));
  const svg = layoutSvg(list, {
    ...{ patterns: 'expanded', width: wide!, height: high!, scale: FINE },
    maskPicture: (mask) => maskPicture(mask, FINE),
  });
  const { width, height, pixels } = new Resvg(svg, { background: '#ffffff' }).render();
  return { width, height, data: pixels };
}

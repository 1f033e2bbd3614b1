import { Resvg } from '@resvg/resvg-js';
import sharp from 'sharp';
import { translation } from '../../src/lib/core/geom/affine';
import { resolveSlots } from '../../src/lib/core/colour/slots';
import { compileMotif } from '../../src/lib/core/scene/motif';
import { importSvg, sizedPicture } from '../../src/lib/core/svg/import';
import { embedPictures } from '../../src/lib/core/svg/paint';
import { elementMarkup } from '../../src/lib/core/svg/pieces';
import { matrixText } from '../../src/lib/core/svg/print';
import { rootViewport } from '../../src/lib/core/svg/import-read';
import { readSvgTree } from '../../src/lib/core/svg/xml';
import { picturesWithin } from '../../src/lib/server/render/fragment';
import { setText } from '../../src/lib/server/render/text';

export type Redrawn = { svg: string; notes: string[]; pictures: number };

/** A drawing brought in as a motif and written again at the place and size of the original; or why it was refused. */
export async function redrawnMotif(source: string): Promise<Redrawn | string> {
  let next = 0;
  const read = importSvg(source, () => `s${next++}`, { setText, drawPicture: picturesWithin() });
  if (!read.ok) return read.message;
  const urls = new Map<string, string>();
  const elements = await Promise.all(
    read.content.elements.map(async (element) => {
      const at = /^pending:(\d+)$/.exec(element.picture?.asset ?? '')?.[1];
      if (at === undefined) return element;
      const url = read.pictures[Number(at)] ?? '';
      const asset = at.padStart(64, '0');
      urls.set(asset, url);
      const { width = 1, height = 1 } = await sharp(
        Buffer.from(url.slice(url.indexOf(',') + 1), 'base64'),
      ).metadata();
      return sizedPicture(element, asset, { width, height });
    }),
  );
  const { elements: compiled } = compileMotif({ id: 'm', name: 'm', content: { ...read.content, elements } });
  const colours = resolveSlots(read.slots, {});
  const art = compiled.map((element) => elementMarkup(element, colours)).join('');
  const tree = readSvgTree(source);
  const size = (tree.ok ? rootViewport(tree.root) : null) ?? { width: 100, height: 100 };
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${size.width}" height="${size.height}" viewBox="0 0 ${size.width} ${size.height}"><g transform="${matrixText(translation(read.origin.x, read.origin.y))}">${art}</g></svg>`;
  return {
    svg: embedPictures(svg, ({ asset }) => urls.get(asset) ?? null),
    notes: read.notes,
    pictures: urls.size,
  };
}

type Pixels = { width: number; height: number; data: Uint8Array };

export function byResvg(svg: string, side: number): Pixels {
  const { width, height, pixels } = new Resvg(svg, {
    fitTo: { mode: 'width', value: side },
    font: { loadSystemFonts: false },
    logLevel: 'off',
  }).render();
  return { width, height, data: pixels };
}

/** librsvg inside libvips. */
export async function byLibrsvg(svg: string, side: number): Promise<Pixels> {
  const { data, info } = await sharp(Buffer.from(svg), { density: 288, unlimited: true })
    .resize(side, undefined, { fit: 'fill' })
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { width: info.width, height: info.height, data };
}

/** The share of pixels in which two pictures differ by more than `most` of 255 in a channel, both laid on grey. */
export function difference(one: Pixels, other: Pixels, most = 48, premultiplied = true): number {
  if (one.width !== other.width || one.height !== other.height) return 1;
  const on = ({ data }: Pixels, at: number, channel: number): number => {
    const alpha = (data[at + 3] ?? 0) / 255;
    const value = data[at + channel] ?? 0;
    return (premultiplied ? value : value * alpha) + 128 * (1 - alpha);
  };
  let off = 0;
  for (let at = 0; at < one.data.length; at += 4)
    if ([0, 1, 2].some((channel) => Math.abs(on(one, at, channel) - on(other, at, channel)) > most)) off += 1;
  return off / (one.data.length / 4);
}

import { Resvg } from '@resvg/resvg-js';
import sharp from 'sharp';
import { isPlainLook, lookKey, withColours, type PictureLook } from '../../core/colour/look';
import { numberColours } from '../../core/colour/slots';
import { meanScale, multiply } from '../../core/geom/affine';
import {
  allLayers,
  listsIn,
  tiledOf,
  type DisplayList,
  type DrawnShape,
  type TiledItem,
} from '../../core/draw/list';
import { maskGrey } from '../../core/formats/mask-picture';
import type { PdfPicture, PdfSources } from '../../core/pdf/picture';
import { paintKey } from '../../core/svg/layout';
import { throughLook } from '../../core/svg/paint';
import { pieceMarkup } from '../../core/svg/pieces';
import { factor } from '../../core/svg/print';
import { pictureBytes } from './making';
import { textRuns } from './text-runs';
import type { Tools } from './tools';

const CSS_PPI = 96;
/** Px of all pictures of one file: what they hold in memory is counted before it is decoded. */
const MOST_PIXELS = 120_000_000;
/** Px of one piece with shadows that is drawn as a picture. */
const MOST_PIECE = 6_000_000;

/** What of a picture is needed: how it is recoloured, and the share of its own size at which it is seen largest. */
type Needed = { asset: string; look: PictureLook | null; share: number };
const keyOf = ({ asset, look }: Pick<Needed, 'asset' | 'look'>): string =>
  `${asset} ${look && !isPlainLook(look) ? lookKey(look) : ''}`;

export class TooManyPixels extends Error {}

/** All that pages show of pictures, decoded with no more px than `ppi` needs; painted masks and pieces with shadows at that too. */
export async function pdfSources(
  { db, pictures }: Tools,
  lists: readonly DisplayList[],
  ppi: number,
  fonts = false,
): Promise<PdfSources> {
  const held = new Map<string, PdfPicture>();
  let pixels = 0;
  const all = lists.flatMap((list) => listsIn(list));
  const shapes = all.flatMap(({ list }) => list.shapes);
  for (const needed of neededPictures(all, ppi)) {
    const { asset, look } = needed;
    const recoloured = look && !isPlainLook(look) ? await pictures.recoloured(asset, look) : null;
    const file = recoloured
      ? { bytes: recoloured, mediaType: 'image/png' }
      : await pictureBytes(db, asset).then((found) => (found.ok ? found.value : null));
    if (!file) continue;
    const made = await pictureOf(file, needed.share);
    pixels += made.width * made.height;
    if (pixels > MOST_PIXELS)
      throw new TooManyPixels(
        `The pictures in this file come to more than ${MOST_PIXELS / 1e6} million px at ${ppi} ppi; choose a lower resolution for pictures.`,
      );
    held.set(keyOf(needed), made);
  }
  const pieces = await piecesWithEffects(shapes, ppi, pictures.embed);
  return {
    picture: (shown) => held.get(keyOf(shown)) ?? null,
    mask: (mask) => maskGrey(mask, ppi / CSS_PPI),
    text: fonts ? await textRuns(lists, db) : () => null,
    effects: (use, piece) => pieces.get(`${paintKey(use)} ${piece}`) ?? null,
  };
}

function neededPictures(lists: ReturnType<typeof listsIn>, ppi: number): Needed[] {
  const found = new Map<string, Needed>();
  const add = (asset: string, look: PictureLook | null, scale: number): void => {
    const share = Math.min(1, (scale * ppi) / CSS_PPI);
    const key = keyOf({ asset, look });
    found.set(key, { asset, look, share: Math.max(share, found.get(key)?.share ?? 0) });
  };
  const shapes = lists.flatMap(({ list, scale }) => list.shapes.map((shape) => ({ shape, by: scale })));
  for (const { shape, by } of shapes) {
    const layers = allLayers(shape);
    const masks = [...shape.masks, ...layers.map(({ mask }) => mask)];
    for (const mask of masks)
      if (mask?.kind === 'picture') add(mask.asset, null, by * meanScale(mask.matrix));
    for (const { items } of layers)
      for (const item of items) {
        if (item.kind === 'picture') add(item.asset, item.look, by * meanScale(item.matrix));
        if (item.kind !== 'tiled') continue;
        for (const { elements, matrix } of item.pattern.scene.pieces)
          for (const { picture } of elements) {
            if (!picture) continue;
            const look = withColours(item.look, numberColours(picture.slots, item.colours));
            add(picture.asset, look, by * meanScale(multiply(item.matrix, multiply(matrix, picture.matrix))));
          }
      }
  }
  return [...found.values()];
}

/** A picture for a file: a JPEG as it is where it is shown so large, else px. */
async function pictureOf(
  { bytes, mediaType }: { bytes: Uint8Array; mediaType: string },
  share: number,
): Promise<PdfPicture> {
  const { width, height, channels, orientation = 1, space } = await sharp(bytes).metadata();
  const whole = share > 0.7;
  if (mediaType === 'image/jpeg' && whole && orientation === 1 && channels !== 4)
    return { width, height, alpha: null, jpeg: bytes, grey: channels === 1 || space === 'b-w' };
  const wide = whole ? width : Math.max(1, Math.round(width * share));
  const { data, info } = await sharp(bytes, { limitInputPixels: false })
    .rotate()
    .resize({ width: orientation > 4 ? undefined : wide, fit: 'inside', withoutEnlargement: true })
    .toColourspace('srgb')
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return parted(data, info);
}

/** Straight px with their opacities apart; none where all of it is solid. */
function parted(
  data: Uint8Array,
  { width, height }: { width: number; height: number },
  premultiplied = false,
): PdfPicture {
  const count = width * height;
  const [rgb, alpha] = [new Uint8Array(count * 3), new Uint8Array(count)];
  let solid = true;
  for (let at = 0; at < count; at += 1) {
    const own = data[at * 4 + 3]!;
    const by = premultiplied && own > 0 ? 255 / own : 1;
    for (let channel = 0; channel < 3; channel += 1)
      rgb[at * 3 + channel] = Math.min(255, Math.round(data[at * 4 + channel]! * by));
    alpha[at] = own;
    solid &&= own === 255;
  }
  return { width, height, rgb, alpha: solid ? null : alpha };
}

/** Pieces with shadows or relief as pictures, each once for all uses of one drawing, as fine as the largest of them is seen. */
async function piecesWithEffects(
  shapes: readonly DrawnShape[],
  ppi: number,
  embed: (svg: string) => Promise<string>,
): Promise<Map<string, NonNullable<ReturnType<PdfSources['effects']>>>> {
  const uses = new Map<string, { item: TiledItem; scale: number }>();
  for (const item of shapes.flatMap(tiledOf)) {
    if (!item.pattern.scene.pieces.some(({ effects }) => effects)) continue;
    const scale = (meanScale(item.matrix) * ppi) / CSS_PPI;
    const key = paintKey(item);
    uses.set(key, { item, scale: Math.max(scale, uses.get(key)?.scale ?? 0) });
  }
  const made = new Map<string, NonNullable<ReturnType<PdfSources['effects']>>>();
  for (const [key, { item, scale }] of uses)
    for (const [index, piece] of item.pattern.scene.pieces.entries()) {
      if (!piece.effects) continue;
      const { box } = piece;
      const fit = Math.min(scale, Math.sqrt(MOST_PIECE / (box.width * box.height)));
      const [width, height] = [box.width, box.height].map((side) => Math.max(1, Math.ceil(side * fit)));
      // Its own opacity is the file's.
      const drawing = throughLook(
        pieceMarkup({ ...piece, opacity: 1, window: null }, { x: 0, y: 0 }, item.colours),
        item.look,
      );
      const svg = await embed(
        `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="${factor(box.x)} ${factor(box.y)} ${factor(box.width)} ${factor(box.height)}" preserveAspectRatio="none">${drawing}</svg>`,
      );
      const drawn = new Resvg(svg, { font: { loadSystemFonts: false }, logLevel: 'off' }).render();
      made.set(`${key} ${index}`, { box, picture: parted(drawn.pixels, drawn, true) });
    }
  return made;
}

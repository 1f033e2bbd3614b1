import { isPlainLook, lookKey, readLookKey, withColours, type PictureLook } from '../colour/look';
import { colourOf, numberColours, type SlotColours } from '../colour/slots';
import type { GradientPaint, Paint, PicturePaint } from '../recipe/recipe';
import { contentId, escapeXml, matrixText, num } from './print';

export type Colours = SlotColours;

/** A paint as the value of a `fill`, and the definition that must stand before it ("" for a plain colour). */
export type PaintMarkup = { value: string; defs: string };

/** A slot's colour or a gradient, ready to write. */
export function paintMarkup(paint: Paint | null, colours: Colours): PaintMarkup {
  if (paint === null) return { value: 'none', defs: '' };
  if (typeof paint === 'string') return { value: colourOf(colours, paint), defs: '' };
  return gradientMarkup(paint, colours);
}

function gradientMarkup(
  { kind, matrix, stops, spread, focus }: GradientPaint,
  colours: Colours,
): PaintMarkup {
  const off = focus ? ` fx="${num(focus.x)}" fy="${num(focus.y)}"` : '';
  const form = kind === 'linear' ? 'x1="0" y1="0" x2="1" y2="0"' : `cx="0" cy="0" r="1"${off}`;
  const method = spread === 'pad' ? '' : ` spreadMethod="${spread}"`;
  const attributes = `gradientUnits="userSpaceOnUse" ${form} gradientTransform="${matrixText(matrix)}"${method}`;
  const body = stops
    .map(({ at, slot, opacity }) => {
      const see = opacity < 1 ? ` stop-opacity="${num(opacity)}"` : '';
      return `<stop offset="${num(at)}" stop-color="${colourOf(colours, slot)}"${see}/>`;
    })
    .join('');
  const id = contentId('g', attributes + body);
  return {
    value: `url(#${id})`,
    defs: `<${kind}Gradient id="${id}" ${attributes}>${body}</${kind}Gradient>`,
  };
}

/** Where pictures are fetched from; files that must stand alone have them put in by {@link embedPictures}. */
const PICTURE_ROUTE = '/api/v1/motifs/';

/** A picture through its matrix. */
export function pictureMarkup(picture: PicturePaint, colours: Colours): string {
  const { asset, width, height, matrix } = picture;
  const href = pictureAddress({ asset, look: withColours(null, numberColours(picture.slots, colours)) });
  return `<image href="${href}" width="${num(width)}" height="${num(height)}" preserveAspectRatio="none" transform="${matrixText(matrix)}"/>`;
}

/** A picture that a drawing shows: an asset, how it is recoloured (`null` as it is), or with how many px a side at most. */
export type ShownPicture = { asset: string; look: PictureLook | null; side?: number };

/** With how many px along their longer side pictures can be fetched smaller than they are. */
export const PICTURE_SIDES = [128, 256, 512, 1024, 2048] as const;

/** A drawing in which pictures are fetched with so many px a side; those that are recoloured stay whole. */
export function smallerPictures(svg: string, sides: ReadonlyMap<string, number>): string {
  if (sides.size === 0 || !svg.includes(PICTURE_ROUTE)) return svg;
  return svg.replace(PICTURE_HREF, (whole: string, asset: string, query: string | undefined) => {
    const side = query === undefined ? sides.get(asset) : undefined;
    return side === undefined ? whole : `href="${pictureAddress({ asset, look: null, side })}"`;
  });
}

/** A drawing with every picture in it seen through a look. */
export function throughLook(svg: string, look: PictureLook | null): string {
  if (look === null || isPlainLook(look) || !svg.includes(PICTURE_ROUTE)) return svg;
  return svg.replace(PICTURE_HREF, (...match: string[]) => {
    const { asset, look: own } = shownPicture(match);
    return `href="${pictureAddress({ asset, look: withColours(look, own?.colours ?? null) })}"`;
  });
}

/** Where a picture is fetched from. */
export function pictureAddress({ asset, look, side }: ShownPicture): string {
  const query =
    look !== null && !isPlainLook(look)
      ? `?look=${lookKey(look)}`
      : side === undefined
        ? ''
        : `?side=${side}`;
  return `${PICTURE_ROUTE}${asset}${query}`;
}

/** All pictures that an SVG text draws, each once. */
export function picturesIn(svg: string): ShownPicture[] {
  const found = new Map([...svg.matchAll(PICTURE_HREF)].map((match) => [match[0], shownPicture(match)]));
  return [...found.values()];
}

/**
 * The SVG with every picture inside it as a data URL; a picture that cannot be had is left empty. One that is drawn more
 * than once, as in the copies of a pattern, is written once and referred to.
 */
export function embedPictures(svg: string, dataUrl: (picture: ShownPicture) => string | null): string {
  if (!svg.includes(PICTURE_ROUTE)) return svg;
  const counts = new Map<string, number>();
  for (const [, key = ''] of svg.matchAll(PICTURE_IMAGE)) counts.set(key, (counts.get(key) ?? 0) + 1);
  const written = new Map<string, string>();
  const shared = svg.replace(PICTURE_IMAGE, (whole, key: string, transform: string) => {
    if ((counts.get(key) ?? 0) < 2) return whole;
    const id = written.get(key) ?? contentId('i', key);
    written.set(key, id);
    return `<use href="#${id}" ${transform}/>`;
  });
  const defs = [...written].map(([key, id]) => `<image id="${id}" ${key}/>`).join('');
  const open = /^[^<]*(?:<\?[^>]*>\s*)?<svg\b[^>]*>/.exec(shared)?.[0] ?? '';
  const once = defs === '' ? shared : `${open}<defs>${defs}</defs>${shared.slice(open.length)}`;
  return once.replace(
    PICTURE_HREF,
    (...match: string[]) => `href="${escapeXml(dataUrl(shownPicture(match)) ?? 'data:,')}"`,
  );
}

const shownPicture = (match: readonly string[]): ShownPicture => {
  const [, asset = '', query = ''] = match;
  const [key, value = ''] = query.split('=');
  if (key === 'side') return { asset, look: null, side: Number(value) };
  return { asset, look: key === 'look' ? readLookKey(value) : null };
};

const QUERY = String.raw`look=[-0-9a-f.,_:~]+|side=\d+`;
const PICTURE_HREF = new RegExp(String.raw`href="/api/v1/motifs/([0-9a-f]{64})(?:\?(${QUERY}))?"`, 'g');

/** A whole picture as {@link pictureMarkup} writes it: what it shows, and where. */
const PICTURE_IMAGE = new RegExp(
  String.raw`<image (href="/api/v1/motifs/[0-9a-f]{64}(?:\?(?:${QUERY}))?" width="[^"]*" height="[^"]*" preserveAspectRatio="none") (transform="[^"]*")/>`,
  'g',
);

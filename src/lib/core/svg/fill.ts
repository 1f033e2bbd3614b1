import type { BlendMode } from '../colour/blend';
import type { Box } from '../geom/box';
import type { PaintedMask } from '../recipe/mask';
import { groundInk, type DrawnMask, type GradientInk, type Ink, type PictureItem } from '../draw/list';
import type { Affine } from '../geom/affine';
import type { FlatGround } from '../scene/pattern';
import { pictureAddress, type PaintMarkup } from './paint';
import { contentId, factor, matrixText, num } from './print';

/** Draws the part of a painted mask that its strokes touch: a grey picture, light where it shows, and its box in mask px. */
export type MaskPicture = (mask: PaintedMask) => { href: string; box: Box } | null;

/** The attribute that blends a group with what lies below it, by the W3C name of the mode. */
export const blendText = (blend: BlendMode): string =>
  blend === 'normal' ? '' : ` style="mix-blend-mode:${blend}"`;

/** An ink as the value of a `fill` or `stroke`, and the definition that must stand before it. */
export const inkPaint = (ink: Ink): PaintMarkup =>
  typeof ink === 'string' ? { value: ink, defs: '' } : gradientPaint(ink);

/** A pattern's ground, laid by `matrix` (pattern → drawing). */
export const groundPaint = (ground: FlatGround, matrix: Affine): PaintMarkup =>
  inkPaint(groundInk(ground, matrix));

/** A gradient in frame px. `white` gives its opacities alone, for a mask. */
export function gradientPaint({ kind, matrix, spread, stops }: GradientInk, white = false): PaintMarkup {
  const form = kind === 'linear' ? 'x1="0" y1="0" x2="1" y2="0"' : 'cx="0" cy="0" r="1"';
  const method = spread === 'pad' ? '' : ` spreadMethod="${spread}"`;
  const attributes = `gradientUnits="userSpaceOnUse" ${form} gradientTransform="${matrixText(matrix)}"${method}`;
  const body = stops
    .map(({ at, colour, opacity }) => {
      const see = opacity < 1 ? ` stop-opacity="${num(opacity)}"` : '';
      return `<stop offset="${num(at)}" stop-color="${white ? '#ffffff' : colour}"${see}/>`;
    })
    .join('');
  const id = contentId('g', attributes + body);
  return {
    value: `url(#${id})`,
    defs: `<${kind}Gradient id="${id}" ${attributes}>${body}</${kind}Gradient>`,
  };
}

/** True where a gradient lets nothing through: what it covers need not be drawn below it. */
export const isOpaqueGradient = ({ stops }: GradientInk): boolean =>
  stops.every(({ opacity }) => opacity >= 1);

type LaidPicture = Pick<PictureItem, 'asset' | 'width' | 'height' | 'matrix'> &
  Partial<Pick<PictureItem, 'look'>>;

/** A picture laid through its matrix, in frame px. */
export function layPicture({ asset, look = null, width, height, matrix }: LaidPicture): string {
  const href = pictureAddress({ asset, look });
  return `<image href="${href}" width="${num(width)}" height="${num(height)}" preserveAspectRatio="none" transform="${matrixText(matrix)}"/>`;
}

/** The attributes that limit a mask to a box. */
export const boxText = ({ x, y, width, height }: Box): string =>
  `x="${factor(x)}" y="${factor(y)}" width="${factor(width)}" height="${factor(height)}"`;

/** A soft mask over a box of the frame, as a luminance <mask>. */
export function maskMarkup(id: string, mask: DrawnMask, box: Box, picture: MaskPicture): string {
  const open = `<mask id="${id}" maskUnits="userSpaceOnUse" ${boxText(box)}>`;
  if (mask.kind === 'gradient') {
    const { value, defs } = gradientPaint(mask.gradient, true);
    return `${open}${defs}<rect ${boxText(box)} fill="${value}"/></mask>`;
  }
  if (mask.kind === 'picture') {
    const image = layPicture(mask);
    if (!mask.inverted) return `${open}${image}</mask>`;
    const filter = contentId('n', boxText(box));
    return `${open}${negative(filter, box)}<g filter="url(#${filter})">${image}</g></mask>`;
  }
  const painted = picture(mask);
  const image = painted
    ? `<image href="${painted.href}" ${boxText(painted.box)} preserveAspectRatio="none" transform="${matrixText(mask.matrix)}"/>`
    : '';
  const all = mask.starts === 'hidden' ? '' : `<rect ${boxText(box)} fill="#ffffff"/>`;
  return `${open}${all}${image}</mask>`;
}

/** A filter that turns light and dark about. Its region is in px: librsvg draws nothing for shares of a group in a mask. */
function negative(id: string, box: Box): string {
  const channel = (name: string): string => `<feFunc${name} type="table" tableValues="1 0"/>`;
  return `<filter id="${id}" filterUnits="userSpaceOnUse" ${boxText(box)} color-interpolation-filters="sRGB"><feComponentTransfer>${['R', 'G', 'B'].map(channel).join('')}</feComponentTransfer></filter>`;
}

/** A mask that shows where `drawing` is opaque: what limits a gradient to the motifs of a pattern. */
export const alphaMask = (id: string, box: Box, drawing: string): string =>
  `<mask id="${id}" maskUnits="userSpaceOnUse" ${boxText(box)} mask-type="alpha" style="mask-type:alpha">${drawing}</mask>`;

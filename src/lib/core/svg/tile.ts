import type { Hex } from '../colour/parse';
import { isIdentity } from '../geom/affine';
import { resolveGround } from '../scene/pattern';
import type { UnitScene } from '../scene/unit';
import { groundPaint } from './fill';
import { cellMarkup, underlayWidth, type Colours } from './pieces';
import { escapeXml, factor, num } from './print';

export type Tile = { ok: true; svg: string; width: number; height: number } | { ok: false; message: string };

/**
 * The smallest upright rectangle that repeats a pattern by itself, as an SVG file of its own size in px, over its ground.
 * A step that is no small fraction, or a plane that lies turned, has no such rectangle.
 */
export function tileSvg(
  scene: UnitScene,
  colours: Colours,
  { title, pixels }: { title: string; pixels?: { width: number; height: number } },
): Tile {
  const { width, height, matrix } = scene.cell;
  if (!isIdentity(matrix))
    return {
      ok: false,
      message:
        'This pattern repeats in no upright rectangle: its plane lies turned or its step is no simple fraction. Hand it out as SVG instead.',
    };
  const size = pixels ?? { width, height };
  const svg = [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${num(size.width)}" height="${num(size.height)}" viewBox="0 0 ${factor(width)} ${factor(height)}" preserveAspectRatio="none">`,
    `<title>${escapeXml(title)}</title>`,
    tileMarkup(scene, colours, size.width / width),
    '</svg>',
  ].join('');
  return { ok: true, svg, width, height };
}

/** What one cell shows, its ground included, in px of the cell; `scale` is how much larger it will be drawn. */
export function tileMarkup(scene: UnitScene, colours: Colours, scale: number): string {
  const { width, height, matrix } = scene.cell;
  const ground = resolveGround(scene, colours);
  const { value, defs } = ground ? groundPaint(ground, matrix) : { value: 'none', defs: '' };
  // The ground reaches beyond the tile, so that its own edge is never seen.
  const paper = ground
    ? `${defs}<rect x="${num(-width)}" y="${num(-height)}" width="${num(width * 3)}" height="${num(height * 3)}" fill="${value}"/>`
    : '';
  return paper + cellMarkup(scene, colours, underlayWidth(scale));
}

/** A comment of a style sheet that no text can break out of. */
export const cssComment = (text: string): string => `/* ${text.replace(/\*\//g, '* /')} */`;

/**
 * A pattern as a CSS class: its tile (see {@link tileSvg}, pictures inside) as background-image with its size, over the colour
 * of its ground.
 */
export function patternCss(
  scene: UnitScene,
  colours: Colours,
  {
    name,
    className,
    tile,
  }: { name: string; className: string; tile: { svg: string; width: number; height: number } },
): string {
  const url = encodeURIComponent(tile.svg).replace(/'/g, '%27').replace(/\(/g, '%28').replace(/\)/g, '%29');
  return cssClass({
    ...{ className, ground: resolveGround(scene, colours)?.colour ?? null },
    says: `${name}: unit ${num(tile.width)} × ${num(tile.height)} px`,
    image: `data:image/svg+xml,${url}`,
    size: `${num(tile.width)}px ${num(tile.height)}px`,
  });
}

/** A CSS class with an image as its background. A clear ground stays clear: a colour behind it would cover what it is laid on. */
export const cssClass = ({
  className,
  says,
  image,
  size,
  ground,
}: {
  className: string;
  says: string;
  image: string;
  size: string;
  ground: Hex | null;
}): string =>
  [
    cssComment(says),
    `.${className} {`,
    `  background-color: ${ground ?? 'transparent'};`,
    `  background-image: url("${image}");`,
    `  background-size: ${size};`,
    '}',
    '',
  ].join('\n');

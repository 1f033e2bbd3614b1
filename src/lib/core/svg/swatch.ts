import { scaling, type Affine } from '../geom/affine';
import { resolveGround } from '../scene/pattern';
import type { UnitScene } from '../scene/unit';
import { basePattern, fillPattern } from './live';
import { underlayWidth, type Colours } from './pieces';
import { groundPaint } from './fill';
import { escapeXml, num } from './print';

/** A sample strip of a pattern as an SVG file: `width` × `height` px at `scale`, over its ground if it has one. */
export function swatchSvg(
  scene: UnitScene,
  colours: Colours,
  options: { width: number; height: number; scale: number; title: string },
): string {
  const { width, height, scale, title } = options;
  const matrix: Affine = scaling(scale);
  const ground = resolveGround(scene, colours);
  const paint = ground && groundPaint(ground, matrix);
  const size = `width="${num(width)}" height="${num(height)}"`;
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" ${size} viewBox="0 0 ${num(width)} ${num(height)}">`,
    `<title>${escapeXml(title)}</title>`,
    `<defs>${basePattern('p', scene, colours, underlayWidth(scale))}${fillPattern('f', 'p', scene, matrix)}</defs>`,
    paint ? `${paint.defs}<rect ${size} fill="${paint.value}"/>` : '',
    `<rect ${size} fill="url(#f)"/></svg>`,
  ].join('');
}

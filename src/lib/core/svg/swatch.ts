import { scaling, type Affine } from '../geom/affine';
import type { Hex } from '../colour/parse';
import type { UnitScene } from '../scene/unit';
import { basePattern, fillPattern } from './live';
import { underlayWidth, type Colours } from './pieces';
import { escapeXml, num } from './print';

/** A sample strip of a pattern as an SVG file: `width` × `height` px at `scale`, over its ground if it has one. */
export function swatchSvg(
  scene: UnitScene,
  colours: Colours,
  options: { width: number; height: number; scale: number; title: string },
): string {
  const { width, height, scale, title } = options;
  const matrix: Affine = scaling(scale);
  const ground: Hex | null = scene.groundSlot ? (colours[scene.groundSlot] ?? null) : null;
  const size = `width="${num(width)}" height="${num(height)}"`;
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" ${size} viewBox="0 0 ${num(width)} ${num(height)}">`,
    `<title>${escapeXml(title)}</title>`,
    `<defs>${basePattern('p', scene, colours, underlayWidth(scale))}${fillPattern('f', 'p', scene, matrix)}</defs>`,
    ground ? `<rect ${size} fill="${ground}"/>` : '',
    `<rect ${size} fill="url(#f)"/></svg>`,
  ].join('');
}

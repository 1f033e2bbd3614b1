import { chain, rotation, scaling, translation } from '../geom/affine';
import type { Point } from '../geom/point';
import { resolveGround } from '../scene/pattern';
import type { UnitScene } from '../scene/unit';
import { groundPaint } from './fill';
import { basePattern, fillPattern } from './live';
import { underlayWidth, type Colours } from './pieces';
import { escapeXml } from './print';

/** How a pattern lies in a file: a factor, degrees clockwise, and where its corner lies, px. */
export type FillLie = { scale: number; rotation: number; at: Point };

/**
 * A pattern as an SVG file without a size: it fills whatever shows it, however large, at its own scale. So a page has every repeat
 * and every turn, also those for which there is no upright tile.
 */
export function fillSvg(
  scene: UnitScene,
  colours: Colours,
  { title, scale, rotation: turn, at }: FillLie & { title: string },
): string {
  const matrix = chain(translation(at.x, at.y), rotation(turn), scaling(scale));
  const ground = resolveGround(scene, colours);
  const paint = ground && groundPaint(ground, matrix);
  const all = 'width="100%" height="100%"';
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" ${all}><title>${escapeXml(title)}</title>`,
    `<defs>${basePattern('p', scene, colours, underlayWidth(scale))}${fillPattern('f', 'p', scene, matrix)}</defs>`,
    paint ? `${paint.defs}<rect ${all} fill="${paint.value}"/>` : '',
    `<rect ${all} fill="url(#f)"/></svg>`,
  ].join('');
}

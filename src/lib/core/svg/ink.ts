import { MITER_LIMIT, type Pen } from '../recipe/layout';
import { factor, num } from './print';

/**
 * The attributes of a <path> that ink it with a paint: its area, or with a pen the line along it. `paint` is a colour or
 * the address of a gradient or pattern.
 */
export function inkAttributes(pen: Pen | null, paint: string, opacity = 1): Record<string, string | number> {
  if (!pen) return { fill: paint, ...(opacity < 1 ? { 'fill-opacity': num(opacity) } : {}) };
  const { width, cap, join, dashes } = pen;
  return {
    fill: 'none',
    stroke: paint,
    'stroke-width': factor(width),
    'stroke-miterlimit': MITER_LIMIT,
    ...(cap === 'butt' ? {} : { 'stroke-linecap': cap }),
    ...(join === 'miter' ? {} : { 'stroke-linejoin': join }),
    ...(dashes.length > 0 ? { 'stroke-dasharray': dashes.map(factor).join(' ') } : {}),
    ...(opacity < 1 ? { 'stroke-opacity': num(opacity) } : {}),
  };
}

/** As {@link inkAttributes}, as the text of a file. */
export const inkText = (pen: Pen | null, paint: string, opacity = 1): string =>
  Object.entries(inkAttributes(pen, paint, opacity))
    .map(([name, value]) => `${name}="${value}"`)
    .join(' ');

import { grow, type Box } from '../geom/box';
import type { MotifEffects, ShadowEffect } from '../recipe/recipe';
import { effectsReach } from '../scene/effects';
import { colourOf } from '../colour/slots';
import type { Colours } from './paint';
import { contentId, num } from './print';

/**
 * Shadows and relief as an SVG filter over `ink` (the box of the drawing without its effects, in the space in which
 * the filter is used; `scale` takes unit px there). Relief is a light edge on the side of the light and a dark one on
 * the other, both inside the motif.
 */
export function effectsFilter(
  effects: MotifEffects,
  box: Box,
  colours: Colours,
): { id: string; markup: string } {
  const { drop, inner, relief } = effects;
  const steps: string[] = [];
  const layers: string[] = [];
  if (drop) {
    steps.push(dropShadow(drop, colours));
    layers.push('drop');
  }
  layers.push('SourceGraphic');
  if (relief) {
    const { angle, height, softness, strength } = relief;
    const edge = { distance: height, blur: softness, opacity: strength };
    steps.push(innerShadow('light', '#ffffff', { ...edge, angle: angle + 180 }));
    steps.push(innerShadow('shade', '#000000', { ...edge, angle }));
    layers.push('light', 'shade');
  }
  if (inner) {
    steps.push(innerShadow('inner', colourOf(colours, inner.slot), inner));
    layers.push('inner');
  }
  const merge = `<feMerge>${layers.map((layer) => `<feMergeNode in="${layer}"/>`).join('')}</feMerge>`;
  const { x, y, width, height } = grow(box, effectsReach(effects));
  const attributes = `filterUnits="userSpaceOnUse" x="${num(x)}" y="${num(y)}" width="${num(width)}" height="${num(height)}" color-interpolation-filters="sRGB"`;
  const body = steps.join('') + merge;
  const id = contentId('e', attributes + body);
  return { id, markup: `<filter id="${id}" ${attributes}>${body}</filter>` };
}

type Shade = Pick<ShadowEffect, 'angle' | 'distance' | 'blur' | 'opacity'>;

function shift({ angle, distance }: Shade): string {
  const radians = (angle * Math.PI) / 180;
  return `dx="${num(Math.cos(radians) * distance)}" dy="${num(Math.sin(radians) * distance)}"`;
}

function dropShadow(shadow: ShadowEffect, colours: Colours): string {
  return [
    `<feGaussianBlur in="SourceAlpha" stdDeviation="${num(shadow.blur)}"/>`,
    `<feOffset ${shift(shadow)} result="fall"/>`,
    `<feFlood flood-color="${colourOf(colours, shadow.slot)}" flood-opacity="${num(shadow.opacity)}"/>`,
    `<feComposite in2="fall" operator="in" result="drop"/>`,
  ].join('');
}

/** The colour outside the motif, blurred, moved and kept inside: it shows along the edge that it is moved away from. */
function innerShadow(name: string, colour: string, shade: Shade): string {
  return [
    `<feFlood flood-color="${colour}" flood-opacity="${num(shade.opacity)}"/>`,
    `<feComposite in2="SourceAlpha" operator="out"/>`,
    `<feGaussianBlur stdDeviation="${num(shade.blur)}"/>`,
    `<feOffset ${shift(shade)}/>`,
    `<feComposite in2="SourceAlpha" operator="in" result="${name}"/>`,
  ].join('');
}

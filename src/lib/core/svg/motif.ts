import { IDENTITY } from '../geom/affine';
import { grow } from '../geom/box';
import type { Motif } from '../recipe/recipe';
import { effectsReach } from '../scene/effects';
import { compileMotif } from '../scene/motif';
import { pieceOf } from '../scene/piece';
import type { Colours } from './paint';
import { pieceMarkup } from './pieces';
import { escapeXml, num } from './print';

/** A motif alone as an SVG file at its own size, with its credit as metadata. */
export function motifSvg(motif: Motif, colours: Colours): string {
  const { elements, box: ink } = compileMotif(motif);
  const effects = motif.effects ?? null;
  const box = effects ? grow(ink, effectsReach(effects)) : ink;
  const piece = pieceOf({ id: motif.id, motif: motif.id, elements, matrix: IDENTITY, effects });
  const credit = Object.entries(motif.credit ?? {})
    .filter(([, value]) => value !== '')
    .map(([key, value]) => `${key}: ${value}`)
    .join('; ');
  const size = `width="${num(Math.max(box.width, 0.01))}" height="${num(Math.max(box.height, 0.01))}"`;
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" ${size} viewBox="${num(box.x)} ${num(box.y)} ${num(Math.max(box.width, 0.01))} ${num(Math.max(box.height, 0.01))}">`,
    `<title>${escapeXml(motif.name)}</title>`,
    credit ? `<desc>${escapeXml(credit)}</desc>` : '',
    piece ? pieceMarkup(piece, { x: 0, y: 0 }, colours) : '',
    '</svg>',
  ].join('');
}

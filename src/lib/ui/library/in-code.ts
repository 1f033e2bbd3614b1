import { slug } from '$lib/core/recipe/library';

/** What of a pattern is asked for by an address: `revision` follows the newest where it is `null`. */
export type InCode = {
  id: string;
  name: string;
  revision: number | null;
  colourway: string | null;
  scale: number;
  rotation: number;
};

/** The address of one of a pattern's files. */
export function codeAddress(origin: string, of: InCode, file: string, lies: boolean): string {
  const { id, revision, colourway, scale, rotation } = of;
  const query = new URLSearchParams({
    ...(colourway === null ? {} : { colourway }),
    ...(lies && scale !== 1 ? { scale: String(scale) } : {}),
    ...(lies && rotation !== 0 ? { rotation: String(rotation) } : {}),
  }).toString();
  return `${origin}/api/v1/patterns/${id}/revisions/${revision ?? 'newest'}/${file}${query === '' ? '' : `?${query}`}`;
}

const inAttribute = (text: string): string => text.replaceAll('&', '&amp;').replaceAll('"', '&quot;');

/** What one writes into a page to have the pattern there: each whole, to be copied. */
export function snippets(origin: string, of: InCode): { title: string; code: string }[] {
  const at = (file: string, lies = true): string => inAttribute(codeAddress(origin, of, file, lies));
  return [
    {
      title: 'Style sheet and class',
      code: `<link rel="stylesheet" href="${at('pattern.css')}">\n<div class="pattern-${slug(of.name)}" style="height: 240px"></div>`,
    },
    {
      title: 'Background of one element',
      code: `<div style="height: 240px; background: url('${at('fill.svg').replaceAll("'", '%27')}') 0 0 / 100% 100%"></div>`,
    },
    {
      title: 'Within an inline SVG',
      code: `<svg width="400" height="240">\n  <clipPath id="shape"><ellipse cx="200" cy="120" rx="200" ry="120"/></clipPath>\n  <image href="${at('fill.svg')}" width="400" height="240" clip-path="url(#shape)"/>\n</svg>`,
    },
  ];
}

import type { Affine } from '../geom/affine';

/** The only place that rounds: lengths to a ten-thousandth px, matrix factors to ten significant digits. */
export const num = (value: number): string => String(Math.round(value * 10_000) / 10_000 + 0);

/** Matrix factors, and lengths that are added up many times, such as a cell's sides. */
export const factor = (value: number): string => String(Number(value.toPrecision(10)) + 0);

/** SVG's matrix(…). */
export function matrixText(m: Affine): string {
  return `matrix(${factor(m.a)} ${factor(m.b)} ${factor(m.c)} ${factor(m.d)} ${factor(m.e)} ${factor(m.f)})`;
}

export { escapeXml } from '../num/text';

/**
 * An id made from the definition it names: equal definitions have equal ids, so that the same one may be written
 * twice on a page and either serves. Two FNV-1a sums of 32 bits.
 */
export function contentId(prefix: string, text: string): string {
  let [low, high] = [0x811c9dc5, 0x01234567];
  for (let at = 0; at < text.length; at += 1) {
    const code = text.charCodeAt(at);
    low = Math.imul(low ^ code, 0x01000193);
    high = Math.imul(high ^ (code + at), 0x01000193);
  }
  return `${prefix}${(low >>> 0).toString(36)}${(high >>> 0).toString(36)}`;
}

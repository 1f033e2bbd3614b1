import { fromPx } from '../num/length';

const rounded = (value: number, digits: number): string =>
  String(Number(value.toFixed(digits))).replace('-', '−');

export const sayMm = (px: number): string => `${rounded(fromPx(px, 'mm'), 2)}\u00a0mm`;
export const sayPt = (px: number): string => `${rounded(fromPx(px, 'pt'), 2)}\u00a0pt`;
export const sayPpi = (ppi: number): string => `${rounded(ppi, 0)}\u00a0ppi`;
export const sayRatio = (ratio: number): string => `${rounded(ratio, 2)}\u00a0:\u00a01`;
export const sayPercent = (share: number): string => `${rounded(share * 100, 1)}\u00a0%`;

/** "Ink", "Ink and Foam", "Ink, Foam and Kelp". */
export const sayList = (names: readonly string[]): string =>
  names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;

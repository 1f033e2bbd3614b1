import { effectivePpi } from '../num/length';
import type { FillPlace } from './fill';

/**
 * Pixels of a picture to an inch of the page where it is laid by `place`: the lower of its two directions. 2000 px
 * laid across 12 in are 166.7 ppi (CSS: an inch is 96 px). `own` is the scale that the picture has before the fill's, 1 for a picture fill.
 */
export const placedPpi = ({ scaleX, scaleY }: Pick<FillPlace, 'scaleX' | 'scaleY'>, own = 1): number =>
  effectivePpi(1, Math.max(scaleX, scaleY) * own);

/** How sharp a picture is for print (common practice, no source): 300 ppi is full, under 150 it looks coarse. */
export function sharpnessOf(ppi: number): 'full' | 'fair' | 'coarse' {
  return ppi >= 300 ? 'full' : ppi >= 150 ? 'fair' : 'coarse';
}

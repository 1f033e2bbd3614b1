import { SIGHTS, type Sight } from '$lib/core/colour/vision';
import { isSurface, type Surface } from '../components/surfaces';
import { readColumns, type Column } from './columns';

/** How the library is looked at, whatever it shows: it stands in the address, so that a sent link shows the same. */
export type ShownAs = { surface: Surface; sight: Sight; scale: number; columns: readonly Column[] };

/** How the library is shown by the words of an address; what they do not say, or say wrongly, is as it starts. */
export function shownIn(params: URLSearchParams): ShownAs {
  const surface = params.get('on');
  const scale = Number(params.get('scale'));
  return {
    surface: isSurface(surface) ? surface : 'mid',
    sight: SIGHTS.find((one) => one === params.get('sight')) ?? 'full',
    scale: scale >= 0.05 && scale <= 4 ? scale : 0.5,
    columns: readColumns(params.get('columns')),
  };
}

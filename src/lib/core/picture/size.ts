import type { Raster } from '../raster/composite';
import { LANCZOS, MITCHELL, resample, type Kernel } from '../raster/resample';
import { madeSize } from '../recipe/made';
import { type PictureLay, type Pictured, type SizeFilter } from '../recipe/pictured';
import { transposed } from './join';

const KERNELS: Record<SizeFilter, Kernel> = { lanczos: LANCZOS, mitchell: MITCHELL };

/**
 * A unit resampled as its size says, over its edges as it is laid, so that it still repeats. What is larger than `unit` is
 * made only where `enlarge` says so: a view shows no more than it has.
 */
export function resized(unit: Raster, pictured: Pictured, lay: PictureLay, enlarge: boolean): Raster {
  const { size } = pictured;
  const { width, height } = madeSize(pictured);
  if (!size?.on || (width === unit.width && height === unit.height)) return unit;
  if (!enlarge && (width > unit.width || height > unit.height)) return unit;
  const kernel = KERNELS[size.filter];
  if (lay.kind !== 'half-drop') {
    const along = lay.kind === 'brick' ? Math.round(lay.step * unit.width) : 0;
    return resample(unit, width, height, { along }, kernel);
  }
  const along = Math.round(lay.step * unit.height);
  return transposed(resample(transposed(unit), height, width, { along }, kernel));
}

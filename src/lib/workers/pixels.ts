import type { Pixels } from '../contract/picture-work';
import { straighten } from '../core/raster/alpha';
import type { Raster } from '../core/raster/composite';

/** Premultiplied → straight, as canvases have it. */
export function pixelsOf({ width, height, data }: Raster): Pixels {
  const out = new Uint8ClampedArray(data.length);
  out.set(data);
  straighten(out);
  return { width, height, data: out };
}

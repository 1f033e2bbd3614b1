import { scaling } from '$lib/core/geom/affine';
import type { Size } from '$lib/core/lattice/size';
import type { Mockup } from '$lib/core/mockup/mockup';
import { cutSheet } from '$lib/core/mockup/objects';
import type { Photo } from '$lib/core/mockup/photo';
import { paintedMask } from '$lib/core/raster/soft-mask';
import type { MaskStroke } from '$lib/core/recipe/mask';
import { drawSheet, type PageThere } from './draw-sheet';
import type { PhotoScene } from './scene/photo-scene';
import { MOST_SHEET } from './still';

/** The longer side of the picture of what lies in front, px: it is soft. */
const MASK_SIDE = 1200;

/** What lies in front of the surfaces of a photograph as a picture, black where the photograph shows; `null` where nothing does. */
export function frontOf(photo: Photo, strokes: readonly MaskStroke[]): HTMLCanvasElement | null {
  if (strokes.length === 0) return null;
  const by = Math.min(1, MASK_SIDE / Math.max(photo.width, photo.height));
  const made = document.createElement('canvas');
  [made.width, made.height] = [Math.round(photo.width * by), Math.round(photo.height * by)];
  const grey = paintedMask(strokes, scaling(1 / by), made.width, made.height);
  const pixels = new ImageData(made.width, made.height);
  grey.forEach((value, at) => pixels.data.set([value, value, value, 255], at * 4));
  made.getContext('2d')!.putImageData(pixels, 0, 0);
  return made;
}

/** A finished picture of a photograph with all that lies on it, its sheets drawn as finely as that shows them. */
export async function photoStill(
  own: PhotoScene,
  { objects }: Pick<Mockup, 'objects'>,
  pages: ReadonlyMap<string, PageThere>,
  size: Size,
  told: (share: number) => void = () => undefined,
): Promise<HTMLCanvasElement> {
  for (const [at, surface] of objects.entries()) {
    const [page, cut] = [pages.get(surface.id), cutSheet(surface.object)];
    if (!page || !cut.ok) continue;
    const side = Math.min(MOST_SHEET, own.mostTexture - 8, Math.max(size.width, size.height) * 1.5);
    own.setSurface(surface, await drawSheet(page, cut.sheet, side), at);
  }
  return own.still(size, told);
}

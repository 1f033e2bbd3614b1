import type { PDFRef } from 'pdf-lib';
import type { Affine } from '../geom/affine';
import type { Box } from '../geom/box';
import type { PaintedMask } from '../recipe/mask';
import type { PictureLook } from '../colour/look';
import type { DrawnText, TiledItem } from '../draw/list';
import type { GlyphRun } from './text';
import type { Drawing } from './drawing';
import type { PdfFile } from './file';

/** A picture as a file takes it: the bytes of a JPEG as they are, or px; opacities apart where it has any. */
export type PdfPicture = { width: number; height: number; alpha: Uint8Array | null } & (
  { jpeg: Uint8Array; grey: boolean } | { rgb: Uint8Array }
);

/** Where pictures come from; all of them are at hand before a page is drawn. */
export type PdfSources = {
  picture: (shown: { asset: string; look: PictureLook | null }) => PdfPicture | null;
  /** A painted mask's strokes as grey px and the box in mask px that they lie in. */
  mask: (mask: PaintedMask) => { grey: Uint8Array; width: number; height: number; box: Box } | null;
  /** Text as glyphs of a font, px of its form; `null` where it is drawn as outlines. */
  text: (text: DrawnText) => Omit<GlyphRun, 'matrix'> | null;
  /** A piece of a pattern with shadows or relief as a picture, and the box in pattern px that it lies in. */
  effects: (
    use: Pick<TiledItem, 'pattern' | 'colours' | 'look'>,
    piece: number,
  ) => { picture: PdfPicture; box: Box } | null;
};

/** PDF has pictures upside down on a square of one by one. */
const UPRIGHT: Affine = { a: 1, b: 0, c: 0, d: -1, e: 0, f: 1 };

/** Shows a picture; `matrix` takes the square from (0,0) to (1,1) to where it lies, its upper left corner at (0,0). */
export function showPicture(
  on: Drawing,
  key: string,
  picture: PdfPicture,
  { matrix, opacity = 1, inverted = false }: { matrix: Affine; opacity?: number; inverted?: boolean },
): void {
  on.within(matrix, () => {
    on.state({ opacity });
    on.within(UPRIGHT, () =>
      on.show(`picture ${key} ${inverted}`, () => pictureObject(on.file, picture, inverted)),
    );
  });
}

function pictureObject(file: PdfFile, picture: PdfPicture, inverted: boolean): PDFRef {
  const { width, height, alpha } = picture;
  const own = { Type: '/XObject', Subtype: '/Image', Width: width, Height: height, BitsPerComponent: 8 };
  const dict = {
    ...own,
    ColorSpace: 'jpeg' in picture && picture.grey ? '/DeviceGray' : file.rgb,
    Decode: inverted ? [1, 0, 1, 0, 1, 0].slice(0, 'jpeg' in picture && picture.grey ? 2 : 6) : undefined,
    SMask: alpha ? file.stream(alpha, { ...own, ColorSpace: '/DeviceGray' }) : undefined,
  };
  return 'jpeg' in picture
    ? file.packed(picture.jpeg, { ...dict, Filter: '/DCTDecode' })
    : file.stream(picture.rgb, dict);
}

/** Shows grey px over a box. */
export function showGrey(
  on: Drawing,
  key: string,
  { grey, width, height, box }: { grey: Uint8Array; width: number; height: number; box: Box },
): void {
  const matrix: Affine = { a: box.width, b: 0, c: 0, d: box.height, e: box.x, f: box.y };
  on.within(matrix, () =>
    on.within(UPRIGHT, () =>
      on.show(`grey ${key}`, () =>
        on.file.stream(grey, {
          ...{ Type: '/XObject', Subtype: '/Image', Width: width, Height: height },
          ...{ BitsPerComponent: 8, ColorSpace: '/DeviceGray' },
        }),
      ),
    ),
  );
}

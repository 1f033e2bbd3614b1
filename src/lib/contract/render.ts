import type { PictureLook } from '../core/colour/look';
import type { Affine } from '../core/geom/affine';

/** What the server's main thread asks of a render worker: one horizontal band of a picture. */
export type BandRequest = {
  width: number;
  height: number;
  /** Whether the picture keeps its alpha: true for a page without a background. */
  alpha: boolean;
  /** The drawing at the bottom, of the band's whole size. */
  base: string;
  /** Layers over it, in order. */
  steps: RenderStep[];
  /** The last band ends the deflate stream. */
  last: boolean;
};

/** One layer of a band, with its upper left corner at pixel (x, y) of it. */
export type RenderStep = {
  x: number;
  y: number;
  width: number;
  height: number;
  source: LayerSource;
  /** A drawing whose alpha limits the layer, where the layer does not fill its own box. */
  mask: string | null;
};

/**
 * Where a layer's pixels come from: a drawing of the layer's size, or a periodic tile that is sampled through `toTile`
 * (layer px → tile px), for units so small that drawing every copy would take too long. `null` stands for a tile whose
 * repeats are finer than a pixel: only its mean colour is seen. A tile's layer lies over `ground`, with `opacity`.
 */
export type LayerSource =
  | { kind: 'drawing'; svg: string }
  | { kind: 'tile'; svg: string; toTile: Affine | null; ground: string | null; opacity: number };

/** A band's rows, filtered and deflated, ready to be joined to the others. */
export type BandReply = { deflated: Uint8Array; adler: number; length: number };

/** A picture's file and how to recolour it. */
export type RecolourRequest = { bytes: Uint8Array; look: PictureLook };

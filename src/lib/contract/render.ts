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

/** One layer of a band, with its upper left corner at pixel (x, y) of it; the SVG files have the layer's size in px. */
export type RenderStep = {
  x: number;
  y: number;
  /** The drawing. */
  svg: string;
  /** A drawing whose alpha limits the layer, where the layer does not fill its own box. */
  mask: string | null;
  opacity: number;
};

/** A band's rows, filtered and deflated, ready to be joined to the others. */
export type BandReply = { deflated: Uint8Array; adler: number; length: number };

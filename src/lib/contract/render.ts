import type { PictureLook } from '../core/colour/look';
import type { BlendMode } from '../core/colour/blend';
import type { Affine } from '../core/geom/affine';
import type { PicturePlane } from '../core/geom/plane';
import type { Edges } from '../core/raster/resample';
import type { MaskStroke } from '../core/recipe/mask';
import type { Layout } from '../core/recipe/layout';
import type { PatternRevisions } from '../core/scene/library';

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

/** One layer of a band, with its upper left corner at pixel (x, y) of it. Drawings are SVG texts of the layer's size. */
export type RenderStep = LayerStep | GroupStep;

type StepBox = { x: number; y: number; width: number; height: number };

export type LayerStep = StepBox & {
  kind: 'layer';
  /** Painted under the source; one layer with it. */
  ground: string | null;
  source: LayerSource;
  /** Opacity of the source, not of the ground. */
  opacity: number;
  /** A drawing that is laid over the source only where the source is; it takes its place where it is opaque. */
  wash: { svg: string; opaque: boolean } | null;
  /** A drawing whose alpha limits the layer, where the layer does not fill its own box. */
  outline: string | null;
  mask: SoftMask | null;
  blend: BlendMode;
};

/** Layers that become one picture, which is masked as a whole. Their places are those in the band. */
export type GroupStep = StepBox & { kind: 'group'; steps: LayerStep[]; masks: SoftMask[] };

/**
 * Where a layer's pixels come from: a drawing of the layer's size; a periodic tile that is sampled through `toTile`
 * (layer px → tile px), for units so small that drawing every copy would take too long (`null` stands for a tile whose
 * repeats are finer than a pixel: only its mean colour is seen); a picture sampled through `toPicture`; or a plane of
 * pictures sampled through `toPlane`, as many as its parts count.
 */
export type LayerSource =
  | { kind: 'drawing'; svg: string }
  | { kind: 'tile'; svg: string; toTile: Affine | null }
  | { kind: 'picture'; picture: SharedPicture | null; toPicture: Affine }
  | { kind: 'plane'; plane: PicturePlane; pictures: (SharedPicture | null)[]; toPlane: Affine };

/** A decoded picture that all threads read: premultiplied RGBA in shared memory. `null` stands for one that is gone. */
export type SharedPicture = { width: number; height: number; pixels: SharedArrayBuffer };

/** How much of a layer shows, at each of its pixels. */
export type SoftMask =
  | { kind: 'painted'; strokes: readonly MaskStroke[]; starts: 'shown' | 'hidden'; toMask: Affine }
  | { kind: 'drawing'; svg: string }
  | { kind: 'picture'; picture: SharedPicture | null; toPicture: Affine; inverted: boolean };

/** A band's rows, filtered and deflated, ready to be joined to the others. */
export type BandReply = { deflated: Uint8Array; adler: number; length: number };

/** A picture's file and how to recolour it. */
export type RecolourRequest = { bytes: Uint8Array; look: PictureLook };

/**
 * A picture's file, and the share of its size at which it is decoded; `edges` is what lies beside it where it is one of
 * many that meet.
 */
export type PixelsRequest = { bytes: Uint8Array; share: number; edges: Edges };

/** A layout to be written as an SVG file: with `bleed` px round it, its patterns live or every copy drawn. */
export type DrawingRequest = {
  layout: Layout & { name: string };
  patterns: readonly PatternRevisions[];
  as: 'live' | 'expanded';
  bleed: number;
};

import type { Hex } from '../core/colour/parse';
import type { Point } from '../core/geom/point';
import type { PlaneGroup } from '../core/lattice/groups';
import type { Size } from '../core/lattice/size';
import type { Parting } from '../core/picture/matte';
import type { RepeatFigure } from '../core/picture/repeat';
import type { Seams } from '../core/picture/seam';
import type { CutChannel, CutOut } from '../core/recipe/cut-out';
import type { MadeBy } from '../core/recipe/made';
import type { Few, JoinKind, ToneChannel } from '../core/recipe/pictured';
import type { BrushStroke } from '../core/geom/brush-stroke';
import type { Texture } from '../core/recipe/texture';

/** Pixels with straight alpha, as a canvas shows them. */
export type Pixels = { width: number; height: number; data: Uint8ClampedArray<ArrayBuffer> };

/** The steps of a unit and the colours of its slots, in their order. */
export type Shown = MadeBy & { colours: readonly Hex[] };

/** How many pixels have each of 64 values. */
export type Histograms = Record<'all' | ToneChannel, number[]>;

/** What the picture view asks of its worker, and what comes back. */
export type PictureWork = {
  /** Takes the picture in; its pixels are handed over. `scale` px of it are one of the picture's own. */
  take: { ask: Pixels & { scale: number }; reply: null };
  /** Makes the picture of numbers, of at most so many px a side, takes it in, and answers it. */
  texture: { ask: { texture: Texture; most: number }; reply: Pixels & { scale: number } };
  /** A texture in the colours that it starts with. */
  sample: { ask: Texture; reply: Pixels };
  /** One unit at `scale` px to one of the region's, and how often each brightness and each value of a channel is in it. */
  unit: { ask: Shown & { scale: number }; reply: Pixels & { histograms: Histograms } };
  /** The region in each plane group, as small repeats. */
  tray: { ask: Shown & { groups: readonly PlaneGroup[]; side: number }; reply: Pixels[] };
  /** The colours that tell the unit best, dark first. */
  colours: { ask: MadeBy & { how: Few['how']; count: number }; reply: Hex[] };
  /** How far apart the picture repeats by itself, px of it; `null` where it does not. */
  period: { ask: null; reply: { across: number | null; down: number | null } };
  /** How a subject would be cut out, and each channel as it parts the picture, `side` px a side at most. */
  channels: {
    ask: { side: number; colour: Hex | null };
    reply: { suggested: CutOut; channels: SeenChannel[] };
  };
  /** The picture with a subject cut out, or the matte alone; how often each value of the channel is there. */
  cut: { ask: { by: CutOut; matte: boolean }; reply: Pixels & { histogram: number[] } };
  /** From where a stroke on the unit is healed best, px of the unit; the unit is looked at with `most` px a side. */
  healFrom: { ask: MadeBy & { stroke: BrushStroke; most: number }; reply: Point };
  /** The largest pieces of what a cut-out leaves, chosen or not. */
  pieces: { ask: CutOut; reply: SeenPiece[] };
  /** The joins before and after; `most` px a side are measured. */
  judge: { ask: Shown & { most: number; size: Size; distances: readonly number[] }; reply: Judged };
  /** How strongly each of some other units would be found from each distance: figures, distance by distance. */
  proposals: {
    ask: { asked: (Shown & { size: Size })[]; most: number; distances: readonly number[] };
    reply: number[][];
  };
  /** What each way to join would come to. */
  ways: { ask: Shown & { most: number }; reply: Ways };
};

/** A channel as a picture in greys, and how well it parts subject and background, 0 to 1. */
export type SeenChannel = Omit<Parting, 'threshold'> & { channel: CutChannel; picture: Pixels };

/** A piece of a cut-out, px of the picture: its middle, its share of the picture, and which of the places picked it holds. */
export type SeenPiece = Point & { share: number; holds: Point[] };

/** The figure of the joins by each way to join. */
export type Ways = Record<JoinKind, number>;

/** Figures of the joins of a repeat: without a join, and as it is now. */
export type Judged = {
  before: Seams;
  now: Seams;
  /** The share of pixels that no join touches, 0 to 1. */
  untouched: number;
  /** How strongly the unit is found from each distance, nearest first. */
  repeat: RepeatFigure[];
};

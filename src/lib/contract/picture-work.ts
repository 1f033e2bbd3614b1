import type { PlaneGroup } from '../core/lattice/groups';
import type { Size } from '../core/lattice/size';
import type { RepeatFigure } from '../core/picture/repeat';
import type { Seams } from '../core/picture/seam';
import type { JoinKind, MadeBy } from '../core/recipe/pictured';

/** Pixels with straight alpha, as a canvas shows them. */
export type Pixels = { width: number; height: number; data: Uint8ClampedArray<ArrayBuffer> };

/** What the picture view asks of its worker, and what comes back. */
export type PictureWork = {
  /** Takes the picture in; its pixels are handed over. `scale` px of it are one of the picture's own. */
  take: { ask: Pixels & { scale: number }; reply: null };
  /** One unit at `scale` px to one of the region's, and how often each brightness is in it. */
  unit: { ask: MadeBy & { scale: number }; reply: Pixels & { histogram: number[] } };
  /** The region in each plane group, as small repeats. */
  tray: { ask: MadeBy & { groups: readonly PlaneGroup[]; side: number }; reply: Pixels[] };
  /** How far apart the picture repeats by itself, px of it; `null` where it does not. */
  period: { ask: null; reply: { across: number | null; down: number | null } };
  /** The joins before and after, and what each way to join would come to. */
  judge: { ask: MadeBy & { most: number; size: Size; distances: readonly number[] }; reply: Judged };
};

/** Figures of the joins of a repeat: without a join, as it is now, and with each way to join (`null` where none is). */
export type Judged = {
  before: Seams;
  now: Seams;
  ways: Record<JoinKind, number> | null;
  /** The share of pixels that no join touches, 0 to 1. */
  untouched: number;
  /** How strongly the unit is found from each distance, nearest first. */
  repeat: RepeatFigure[];
};

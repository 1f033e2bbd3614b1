import type { Affine } from '../core/geom/affine';
import type { PathOperation } from '../core/geom/boolean';
import type { Size } from '../core/lattice/size';
import type { RepeatFigure } from '../core/picture/repeat';
import type { Seams } from '../core/picture/seam';
import type { Raster } from '../core/raster/composite';
import type { Stroke, ComposedRecipe, DrawingElement, Recipe } from '../core/recipe/recipe';
import type { WidestGap } from '../core/scene/gap';
import type { Scattered, ScatterPlan } from '../core/scene/scatter';
import type { Touch } from '../core/scene/touch';

/** What the bench asks of its worker, and what comes back. Each pair is one kind of work. */
export type BenchWork = {
  checks: { ask: { recipe: Recipe; near: number }; reply: CheckReply };
  scatter: { ask: { recipe: ComposedRecipe; plan: ScatterPlan }; reply: Scattered };
  combine: { ask: { operation: PathOperation; elements: DrawingElement[] }; reply: Worked<{ d: string }> };
  /** The joins of a cell that is drawn over its ground, and how strongly the eye finds it from each distance. */
  pictures: { ask: PicturesAsk; reply: PicturesReply };
  outline: { ask: { d: string; stroke: Stroke }; reply: Worked<{ d: string }> };
};

/** A cell of a plane, its pixels with straight alpha, as large as `size` and laid by `matrix`, px. */
export type PicturesAsk = { picture: Raster; size: Size; matrix: Affine; distances: readonly number[] };
export type PicturesReply = { seams: Seams; repeat: RepeatFigure[] };

export type CheckReply = {
  gap: WidestGap | null;
  touches: Touch[];
  thin: { piece: string; width: number }[];
};

/** A result, or a sentence that says why there is none. */
export type Worked<T> = ({ ok: true } & T) | { ok: false; message: string };

export type BenchKind = keyof BenchWork;
export type BenchAsk<K extends BenchKind = BenchKind> = { id: number; kind: K; ask: BenchWork[K]['ask'] };
export type BenchReply = { id: number; reply: unknown } | { id: number; fault: string };

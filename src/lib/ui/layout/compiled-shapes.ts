import type { Shape } from '$lib/core/recipe/layout';
import { lowerShape, relowerShape } from '$lib/core/draw/lower';
import type { PatternLookup } from '$lib/core/scene/pattern';
import type { DrawnShape } from '$lib/core/draw/list';

/** Compiled shapes, kept while neither the shape nor the patterns change: a drag compiles only what moves. */
export class CompiledShapes {
  private kept = new WeakMap<Shape, DrawnShape>();
  private lastById = new Map<string, { shape: Shape; scene: DrawnShape }>();
  private lookup: PatternLookup | null = null;

  of(shape: Shape, lookup: PatternLookup): DrawnShape {
    if (this.lookup !== lookup) {
      this.kept = new WeakMap();
      this.lastById = new Map();
      this.lookup = lookup;
    }
    const held = this.kept.get(shape);
    if (held) return held;
    const last = this.lastById.get(shape.id);
    const scene = last ? relowerShape(shape, last.shape, last.scene, lookup) : lowerShape(shape, lookup);
    this.kept.set(shape, scene);
    this.lastById.set(shape.id, { shape, scene });
    return scene;
  }
}

import type { Shape } from '$lib/core/recipe/layout';
import { compileShape, recompileShape, type PatternLookup, type ShapeScene } from '$lib/core/scene/layout';

/** Compiled shapes, kept while neither the shape nor the patterns change: a drag compiles only what moves. */
export class CompiledShapes {
  private kept = new WeakMap<Shape, ShapeScene>();
  private lastById = new Map<string, { shape: Shape; scene: ShapeScene }>();
  private lookup: PatternLookup | null = null;

  of(shape: Shape, lookup: PatternLookup): ShapeScene {
    if (this.lookup !== lookup) {
      this.kept = new WeakMap();
      this.lastById = new Map();
      this.lookup = lookup;
    }
    const held = this.kept.get(shape);
    if (held) return held;
    const last = this.lastById.get(shape.id);
    const scene = last ? recompileShape(shape, last.shape, last.scene, lookup) : compileShape(shape, lookup);
    this.kept.set(shape, scene);
    this.lastById.set(shape.id, { shape, scene });
    return scene;
  }
}

import type { PatternForUse } from '$lib/contract/data';
import { followColourway, followLayout, followRecipe, followShape } from '$lib/core/recipe/links';
import type { Layout, Shape } from '$lib/core/recipe/layout';
import { mapSame } from '$lib/core/colour/tint';
import type { KnownLinks } from '../state/links';

/** Puts the present colours of palettes into documents; the same shape comes out as the same object again. */
export class Follower {
  private readonly shapes = new WeakMap<Shape, Shape>();

  constructor(private readonly links: KnownLinks) {}

  doc<T extends Layout>(doc: T): T {
    if (this.links.size === 0) return doc;
    const { shapes: _, ...page }: Layout = doc;
    const shapes = mapSame(doc.shapes, (shape) => this.shape(shape));
    const { background } = followLayout({ ...page, shapes: [] }, this.links);
    return shapes === doc.shapes && background === doc.background ? doc : { ...doc, shapes, background };
  }

  *patterns(patterns: Iterable<PatternForUse>): Iterable<PatternForUse> {
    for (const pattern of patterns) {
      const recipes = Object.entries(pattern.recipes).map(([number, recipe]) => [
        number,
        followRecipe(recipe, this.links),
      ]);
      const colourways = mapSame(pattern.colourways, (way) => followColourway(way, this.links));
      yield { ...pattern, recipes: Object.fromEntries(recipes) as PatternForUse['recipes'], colourways };
    }
  }

  private shape(shape: Shape): Shape {
    const held = this.shapes.get(shape);
    if (held) return held;
    const followed = followShape(shape, this.links);
    this.shapes.set(shape, followed);
    return followed;
  }
}

import { lowerShape } from '../draw/lower';
import type { DrawnShape } from '../draw/list';
import { heldShapes, type Layout, type Shape } from '../recipe/layout';
import type { ProofContext } from './context';
import { gathered, type Found, type ProofNote } from './note';
import { foundOfColours } from './on-colour';
import { foundAtEdges, foundUnseen } from './on-page';
import { foundOnShape } from './on-shape';
import { foundOnPress } from './on-press';
import { foundAtJoint, foundOfRights } from './on-use';

/**
 * Proofs a layout again and again as it changes: what was found on a shape by itself is kept until the shape, the page, the patterns
 * or the limits are others.
 */
export class Proof {
  private kept = new WeakMap<Shape, Found[]>();
  private by: readonly unknown[] = [];

  /** What is to be said of a layout; `drawn` is how a shape is drawn, where that is at hand. */
  notes(
    layout: Layout,
    context: ProofContext,
    drawn: (shape: Shape) => DrawnShape = (shape) => lowerShape(shape, context.lookup),
  ): ProofNote[] {
    const { width, height, bleed, background } = layout;
    const by = [context.limits, context.lookup, context.patterns, width, height, bleed];
    if (by.some((value, at) => value !== this.by[at])) this.kept = new WeakMap();
    this.by = by;
    const page = { x: -bleed, y: -bleed, width: width + 2 * bleed, height: height + 2 * bleed };
    const hidden = heldShapes(layout, 'hidden');
    const all = layout.shapes.map((shape) => ({ shape, drawn: drawn(shape) }));
    const seen = all.filter(({ shape }) => !hidden(shape));
    const shapes = seen.map(({ shape }) => shape);
    return gathered([
      ...seen.flatMap((one) => this.onShape(one.shape, one.drawn, page, context)),
      ...foundAtEdges(layout, seen, context),
      ...foundAtJoint(shapes, context),
      ...foundOfColours(seen, background, context),
      ...foundOnPress(
        seen.map((one) => one.drawn),
        background,
        context,
      ),
      ...foundOfRights(shapes, context),
      ...foundUnseen(all, hidden),
    ]);
  }

  private onShape(
    shape: Shape,
    drawn: DrawnShape,
    page: Parameters<typeof foundOnShape>[2],
    context: ProofContext,
  ): Found[] {
    const held = this.kept.get(shape);
    if (held) return held;
    const found = foundOnShape(shape, drawn, page, context);
    this.kept.set(shape, found);
    return found;
  }
}

import { multiply, translation, type Affine } from '../geom/affine';
import type { Box } from '../geom/box';
import type { Point } from '../geom/point';
import type { LayoutScene, MaskScene, ShapePaint, ShapeScene } from './layout';

/** A scene with its page grown by `bleed` px on each side: what is cut off after printing. */
export function withBleed(scene: LayoutScene, bleed: number): LayoutScene {
  if (bleed === 0) return scene;
  const moved = (box: Box): Box => ({ ...box, x: box.x + bleed, y: box.y + bleed });
  const shapes = scene.shapes.map((shape): ShapeScene => ({
    ...shape,
    x: shape.x + bleed,
    y: shape.y + bleed,
    box: moved(shape.box),
    stroke: shape.stroke && { ...shape.stroke, box: moved(shape.stroke.box) },
  }));
  return { ...scene, width: scene.width + 2 * bleed, height: scene.height + 2 * bleed, shapes };
}

/**
 * The same drawing counted from another corner, which lies `by` from the shape's own towards the page's: so a stage may
 * draw shapes in page px, without a transform for each. `d` is the outline moved by `by`.
 */
export function reframed(scene: ShapeScene, by: Point, d: string): ShapeScene {
  const move = translation(by.x, by.y);
  const onto = <T extends { matrix: Affine }>(held: T): T => ({
    ...held,
    matrix: multiply(move, held.matrix),
  });
  const masked = (mask: MaskScene): MaskScene =>
    mask.kind === 'gradient' ? { ...mask, gradient: onto(mask.gradient) } : onto(mask);
  const painted = (paint: ShapePaint): ShapePaint => {
    const mask = paint.mask && masked(paint.mask);
    switch (paint.kind) {
      case 'colour':
        return { ...paint, mask };
      case 'gradient':
        return { ...paint, mask, gradient: onto(paint.gradient) };
      case 'picture':
        return { ...onto(paint), mask };
      case 'pattern':
        return { ...onto(paint), mask, wash: paint.wash && onto(paint.wash) };
    }
  };
  return {
    ...scene,
    x: scene.x - by.x,
    y: scene.y - by.y,
    d,
    paints: scene.paints.map(painted),
    masks: scene.masks.map(masked),
    stroke: scene.stroke && { ...scene.stroke, paints: scene.stroke.paints.map(painted) },
  };
}

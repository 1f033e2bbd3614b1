import { multiply, translation, type Affine } from '../geom/affine';
import type { Box } from '../geom/box';
import type { Point } from '../geom/point';
import type { DisplayList, DrawItem, DrawnMask, DrawnShape, Layer } from './list';

/** A list with its page grown by `bleed` px on each side: what is cut off after printing. */
export function withBleed(scene: DisplayList, bleed: number): DisplayList {
  if (bleed === 0) return scene;
  const moved = (box: Box): Box => ({ ...box, x: box.x + bleed, y: box.y + bleed });
  const shapes = scene.shapes.map((shape): DrawnShape => ({
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
export function reframed(scene: DrawnShape, by: Point, d: string): DrawnShape {
  const move = translation(by.x, by.y);
  const onto = <T extends { matrix: Affine }>(held: T): T => ({
    ...held,
    matrix: multiply(move, held.matrix),
  });
  const masked = (mask: DrawnMask): DrawnMask =>
    mask.kind === 'gradient' ? { ...mask, gradient: onto(mask.gradient) } : onto(mask);
  const layered = (layer: Layer): Layer => ({
    ...layer,
    mask: layer.mask && masked(layer.mask),
    items: layer.items.map(placed),
  });
  const placed = (item: DrawItem): DrawItem => {
    switch (item.kind) {
      case 'path':
        return typeof item.ink === 'string' ? item : { ...item, ink: onto(item.ink) };
      case 'picture':
      case 'page':
        return onto(item);
      case 'tiled':
        return { ...onto(item), wash: item.wash && onto(item.wash) };
    }
  };
  return {
    ...scene,
    x: scene.x - by.x,
    y: scene.y - by.y,
    d,
    layers: scene.layers.map(layered),
    masks: scene.masks.map(masked),
    text: scene.text && onto(scene.text),
    stroke: scene.stroke && { ...scene.stroke, layers: scene.stroke.layers.map(layered) },
  };
}

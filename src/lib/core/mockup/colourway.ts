import { mapFills, type Shape } from '../recipe/layout';

/**
 * Shapes as they are in a colourway: every pattern that has it shows it, without colours of its own use. The same shapes where
 * none has.
 */
export function inColourway(
  shapes: readonly Shape[],
  colourway: string,
  has: (pattern: string, colourway: string) => boolean,
): Shape[] {
  return shapes.map((shape) =>
    mapFills(shape, (fill) =>
      fill.kind === 'pattern' && has(fill.pattern, colourway) ? { ...fill, colourway, colours: {} } : fill,
    ),
  );
}

import { mapFills, type Shape } from '../recipe/layout';
import type { Fill, PatternFill } from '../recipe/fill';
import type { Mend, ProofPlace } from './note';

/** A mend that changes the shapes of its places. */
export const mendShapes = (label: string, change: (shape: Shape) => Shape): Mend => ({
  label,
  change: (layout, places) => {
    const at = new Set(places.map(({ shape }) => shape));
    return { ...layout, shapes: layout.shapes.map((shape) => (at.has(shape.id) ? change(shape) : shape)) };
  },
});

/** A mend that takes the shapes of its places away. */
export const removeShapes = (label: string): Mend => ({
  label,
  change: (layout, places) => {
    const at = new Set(places.map(({ shape }) => shape));
    return { ...layout, shapes: layout.shapes.filter(({ id }) => !at.has(id)) };
  },
});

const fillsAt = (places: readonly ProofPlace[]): Set<string> =>
  new Set(places.flatMap(({ fill }) => fill ?? []));

/** A mend that changes the fills of its places. */
export const mendFills = (label: string, change: (fill: Fill, holder: Shape) => Fill): Mend => ({
  label,
  change: (layout, places) => {
    const at = fillsAt(places);
    const shapes = layout.shapes.map((shape) =>
      mapFills(shape, (fill) => (at.has(fill.id) ? change(fill, shape) : fill)),
    );
    return { ...layout, shapes };
  },
});

/** A mend that changes the pattern fills of its places. */
export const mendPatterns = (
  label: string,
  change: (fill: PatternFill, holder: Shape) => PatternFill,
): Mend => mendFills(label, (fill, holder) => (fill.kind === 'pattern' ? change(fill, holder) : fill));

/** A mend that takes the fills of its places away. */
export const removeFills = (label: string): Mend => ({
  label,
  change: (layout, places) => {
    const at = fillsAt(places);
    const shapes = layout.shapes.map((shape) => {
      const fills = shape.fills.filter(({ id }) => !at.has(id));
      const stroke = shape.stroke && {
        ...shape.stroke,
        fills: shape.stroke.fills.filter(({ id }) => !at.has(id)),
      };
      return { ...shape, fills, stroke };
    });
    return { ...layout, shapes };
  },
});

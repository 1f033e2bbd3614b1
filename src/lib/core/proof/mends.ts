import { mapFills, type Shape } from '../recipe/layout';
import type { Fill, PatternFill } from '../recipe/fill';
import { mendedShapes, type Mend, type ProofPlace, type ShapeMend } from './note';

/** A mend that changes each shape of its places by itself, or takes it away. */
function mendEach(label: string, each: ShapeMend): Mend {
  return {
    label,
    each,
    change: (layout, places) =>
      mendedShapes(
        layout,
        places.map((place) => ({ place, each })),
      ),
  };
}

/** A mend that changes the shapes of its places. */
export const mendShapes = (label: string, change: (shape: Shape) => Shape): Mend => mendEach(label, change);

/** A mend that takes the shapes of its places away. */
export const removeShapes = (label: string): Mend => mendEach(label, () => null);

/** A mend that changes the fills of its places. */
export const mendFills = (label: string, change: (fill: Fill, holder: Shape) => Fill): Mend =>
  mendEach(label, (shape, place) =>
    mapFills(shape, (fill) => (fill.id === place.fill ? change(fill, shape) : fill)),
  );

/** A mend that changes the pattern fills of its places. */
export const mendPatterns = (
  label: string,
  change: (fill: PatternFill, holder: Shape) => PatternFill,
): Mend => mendFills(label, (fill, holder) => (fill.kind === 'pattern' ? change(fill, holder) : fill));

/** A mend that takes the fills of its places away. */
export const removeFills = (label: string): Mend =>
  mendEach(label, (shape, { fill }: ProofPlace) => {
    const others = (fills: readonly Fill[]): Fill[] => fills.filter(({ id }) => id !== fill);
    const { stroke } = shape;
    return {
      ...shape,
      fills: others(shape.fills),
      stroke: stroke && { ...stroke, fills: others(stroke.fills) },
    };
  });

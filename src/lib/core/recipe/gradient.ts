import { follow, retinted, tintOf, type Links, type Tint } from '../colour/tint';
import { mapSame } from '../colour/tint';
import { rotation } from '../geom/affine';
import type { Point } from '../geom/point';

/** A colour of a gradient: `at` 0 to 1 along it, `opacity` 0 to 1. */
export type GradientStop = Tint & { at: number; opacity: number };

/**
 * A gradient over a shape's frame. `from` and `to` are shares of the frame (0 to 1, beyond it where wanted), so that
 * reshaping takes it along; a radial one has its middle at `from` and its rim at `to`. It goes on with its end colours.
 */
export type Gradient = { kind: 'linear' | 'radial'; from: Point; to: Point; stops: readonly GradientStop[] };

/** Which gradient of a shape is meant: that of a fill, the one over a fill's motifs, or a mask's. */
export type GradientPlace = 'fill' | 'wash' | 'fill-mask' | 'shape-mask';

/** A gradient from the top of the frame to its foot, between two tints. */
export function freshGradient(first: Tint, last: Tint): Gradient {
  return {
    kind: 'linear',
    from: { x: 0.5, y: 0 },
    to: { x: 0.5, y: 1 },
    stops: [
      { ...first, at: 0, opacity: 1 },
      { ...last, at: 1, opacity: 1 },
    ],
  };
}

/** A gradient of another kind over the same frame, with the same stops. */
export function gradientOfKind(gradient: Gradient, kind: Gradient['kind']): Gradient {
  if (kind === gradient.kind) return gradient;
  return kind === 'radial'
    ? { ...gradient, kind, from: { x: 0.5, y: 0.5 }, to: { x: 1, y: 0.5 } }
    : { ...gradient, kind, from: { x: 0.5, y: 0 }, to: { x: 0.5, y: 1 } };
}

/** The direction of a gradient on a frame, degrees clockwise from the right. */
export function gradientAngle({ from, to }: Gradient, width: number, height: number): number {
  return (Math.atan2((to.y - from.y) * height, (to.x - from.x) * width) * 180) / Math.PI;
}

/**
 * A linear gradient turned to an angle: it runs through the frame's middle and its ends lie where the frame's farthest
 * corners are met, as CSS Images 4 lays `linear-gradient()`.
 */
export function gradientAtAngle(
  gradient: Gradient,
  degrees: number,
  width: number,
  height: number,
): Gradient {
  const { a: cos, b: sin } = rotation(degrees);
  const half = (Math.abs(width * cos) + Math.abs(height * sin)) / 2;
  const share = (sign: number): Point => ({
    x: 0.5 + (sign * half * cos) / width,
    y: 0.5 + (sign * half * sin) / height,
  });
  return { ...gradient, from: share(-1), to: share(1) };
}

/** The stops in order along the gradient. */
export const sortedStops = ({ stops }: Gradient): GradientStop[] =>
  [...stops].sort((one, other) => one.at - other.at);

/** A gradient with the present colours of its links; the same object where none changed. */
export function followGradient(gradient: Gradient, links: Links): Gradient {
  const stops = mapSame(gradient.stops, (stop) => follow(stop, links));
  return stops === gradient.stops ? gradient : { ...gradient, stops };
}

/** A gradient with every colour changed. */
export function recolourGradient(gradient: Gradient, change: (tint: Tint) => Tint): Gradient {
  const stops = gradient.stops.map((stop) => {
    const before = tintOf(stop.colour, stop.link);
    const after = change(before);
    return after === before ? stop : retinted(stop, after.colour, after.link);
  });
  return { ...gradient, stops };
}

import {
  about,
  apply,
  chain,
  decompose,
  determinant,
  rotation,
  translation,
  type Affine,
} from '../geom/affine';
import { add, subtract, type Point } from '../geom/point';
import { roundTo, wrapDegrees } from '../num/tolerance';
import { fillMatrix, type PatternFill } from './fill';
import { shapeCentre, type Shape } from './layout';

/** What a transformation acts on. */
export type TransformScope = 'shape' | 'pattern' | 'both';

export type Frame = { x: number; y: number; width: number; height: number };

/**
 * Moves by `delta` px on the page. A pattern is anchored to its shape, so it comes along with it in both scopes that
 * move the shape; *pattern* slides it inside the standing shape.
 */
export function moveBy(shape: Shape, scope: TransformScope, delta: Point): Shape {
  if (scope !== 'pattern') return { ...shape, x: shape.x + delta.x, y: shape.y + delta.y };
  return withPattern(shape, (fill) => ({ ...fill, offset: add(fill.offset, delta) }));
}

/**
 * Gives the shape another frame (in its own turned axes). *Shape* leaves the pattern where it lies on the page: more
 * or less of it shows, it is never stretched. *Both* takes the pattern through the same stretch. *Pattern* stretches
 * the pattern as if the frame had changed, and leaves the shape.
 */
export function sizeTo(shape: Shape, scope: TransformScope, frame: Frame): Shape {
  const sized: Shape = { ...shape, ...frame };
  const stretch = frameMatrix(sized, shape);
  if (scope === 'shape') return keepPattern(shape, sized, null);
  if (scope === 'both') return keepPattern(shape, sized, stretch);
  return keepPattern(shape, shape, stretch);
}

/** Turns by `degrees` clockwise about `centre` on the page. *Shape* leaves the pattern's angle and place on the page. */
export function turnBy(shape: Shape, scope: TransformScope, degrees: number, centre: Point): Shape {
  const turn = about(centre, rotation(degrees));
  if (scope === 'pattern') return keepPattern(shape, shape, turn);
  const middle = apply(turn, shapeCentre(shape));
  const turned: Shape = {
    ...shape,
    x: middle.x - shape.width / 2,
    y: middle.y - shape.height / 2,
    rotation: tidyDegrees(shape.rotation + degrees),
  };
  return keepPattern(shape, turned, scope === 'both' ? turn : null);
}

/** Pattern space → page. */
export function pagePatternMatrix(shape: Shape, fill: PatternFill): Affine {
  return chain(translation(shape.x, shape.y), fillMatrix(fill));
}

/** The shape with its pattern fill changed; a shape without one stays as it is. */
export function withPattern(shape: Shape, change: (fill: PatternFill) => PatternFill): Shape {
  return shape.fill?.kind === 'pattern' ? { ...shape, fill: change(shape.fill) } : shape;
}

/** Sets a fill's numbers so that its pattern lies by `onPage`; the anchor takes up the move, the offset keeps its numbers. */
export function layPattern(shape: Shape, fill: PatternFill, onPage: Affine): PatternFill {
  const parts = decompose(onPage);
  if (!parts || !(determinant(onPage) > 0)) return fill;
  const origin: Point = { x: onPage.e, y: onPage.f };
  const anchor = tidyPoint(subtract(subtract(origin, { x: shape.x, y: shape.y }), fill.offset));
  return { ...fill, ...parts, rotation: tidyDegrees(parts.rotation), anchor };
}

/** `after` with the pattern of `before` at the same place on the page, or taken through `change` first. */
function keepPattern(before: Shape, after: Shape, change: Affine | null): Shape {
  const fill = before.fill;
  if (fill?.kind !== 'pattern') return after;
  if (!change) {
    const anchor = tidyPoint(add(fill.anchor, { x: before.x - after.x, y: before.y - after.y }));
    return { ...after, fill: { ...fill, anchor } };
  }
  return { ...after, fill: layPattern(after, fill, chain(change, pagePatternMatrix(before, fill))) };
}

/** The map of the page that takes the old frame onto the new one, both turned about their own middles. */
function frameMatrix(to: Shape, from: Shape): Affine {
  const scale: Affine = { a: to.width / from.width, b: 0, c: 0, d: to.height / from.height, e: 0, f: 0 };
  const middle = shapeCentre(to);
  const old = shapeCentre(from);
  return chain(
    translation(middle.x, middle.y),
    rotation(to.rotation),
    scale,
    rotation(-from.rotation),
    translation(-old.x, -old.y),
  );
}

/** Degrees in (−180, 180], with the dust of repeated turns wiped off (a billionth of a degree). */
const tidyDegrees = (degrees: number): number => wrapDegrees(roundTo(degrees, 9));

/** A place in px with the dust of repeated sums wiped off (a billionth of a px). */
const tidyPoint = ({ x, y }: Point): Point => ({ x: roundTo(x, 9), y: roundTo(y, 9) });

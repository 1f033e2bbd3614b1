import {
  about,
  apply,
  applyVector,
  chain,
  invert,
  multiply,
  rotation,
  scaling,
  skewX,
  translation,
  type Affine,
} from '../geom/affine';
import { add, subtract, type Point } from '../geom/point';
import { formatPath, type Path } from '../geom/path';
import { roundTo } from '../num/tolerance';
import { isPlaced, placeOfLinear, tidyDegrees, tidyPoint, type Fill, type PlacedFill } from './fill';
import { formOfPath } from './form';
import {
  allFills,
  frameMatrix,
  mapFills,
  pagePatternMatrix,
  shapeCentre,
  shapeLinear,
  withPlaced,
  type Shape,
} from './layout';
import { LIMITS } from './limits';
import type { Mask } from './mask';

/** What a transformation acts on. In *pattern* it is all patterns and pictures of the shape, or the one named `only`. */
export type TransformScope = 'shape' | 'pattern' | 'both';

export type Frame = { x: number; y: number; width: number; height: number };

/**
 * Moves by `delta` px on the page. What is anchored to the shape comes along with it in both scopes that move the
 * shape; what is anchored to the page comes along only with *both*. *Pattern* slides inside the standing shape.
 */
export function moveBy(shape: Shape, scope: TransformScope, delta: Point, only?: string): Shape {
  const slide = (fill: PlacedFill): PlacedFill => ({ ...fill, offset: add(fill.offset, delta) });
  if (scope === 'pattern') return withPlaced(shape, slide, only);
  const moved = { ...shape, x: shape.x + delta.x, y: shape.y + delta.y };
  if (scope === 'shape') return moved;
  return withPlaced(moved, (fill) => (fill.anchored === 'page' ? slide(fill) : fill));
}

/**
 * Gives the shape another frame (in its own turned axes). *Shape* leaves the pattern where it lies on the page: more
 * or less of it shows, it is never stretched. *Both* takes the pattern through the same stretch. *Pattern* stretches
 * the pattern as if the frame had changed, and leaves the shape.
 */
export function sizeTo(shape: Shape, scope: TransformScope, frame: Frame, only?: string): Shape {
  const sized: Shape = { ...shape, ...frame };
  const stretch = frameChange(sized, shape);
  if (scope === 'shape') return carry(shape, sized, null, stretch);
  if (scope === 'both') return carry(shape, sized, stretch, stretch);
  return carryPattern(shape, stretch, only);
}

/** Turns by `degrees` clockwise about `centre` on the page. *Shape* leaves the pattern's angle and place on the page. */
export function turnBy(
  shape: Shape,
  scope: TransformScope,
  degrees: number,
  centre: Point,
  only?: string,
): Shape {
  const turn = about(centre, rotation(degrees));
  if (scope === 'pattern') return carryPattern(shape, turn, only);
  const middle = apply(turn, shapeCentre(shape));
  const turned: Shape = {
    ...shape,
    x: middle.x - shape.width / 2,
    y: middle.y - shape.height / 2,
    rotation: tidyDegrees(shape.rotation + degrees),
  };
  return carry(shape, turned, scope === 'both' ? turn : null, turn);
}

/**
 * Takes shape, pattern or both through any map of the page: scaling, skew, reflection, turn and move in one. The
 * shape's numbers are read anew from the map. A map that would flatten the shape leaves it as it is.
 */
export function mapBy(shape: Shape, scope: TransformScope, map: Affine, only?: string): Shape {
  if (!invert(map)) return shape;
  if (scope === 'pattern') return carryPattern(shape, map, only);
  const { width, height } = shape;
  const linear = multiply(map, chain(shapeLinear(shape), scaling(width, height)));
  const parts = placeOfLinear({ ...linear, e: 0, f: 0 }, shape);
  if (!parts) return shape;
  const middle = apply(map, shapeCentre(shape));
  const size = { width: roundTo(parts.scaleX, 9), height: roundTo(parts.scaleY, 9) };
  const mapped: Shape = {
    ...shape,
    ...size,
    x: middle.x - size.width / 2,
    y: middle.y - size.height / 2,
    rotation: tidyDegrees(parts.rotation),
    skew: roundTo(parts.skew, 9),
    reflectX: parts.reflectX,
    reflectY: parts.reflectY,
  };
  return carry(shape, mapped, scope === 'both' ? map : null, map);
}

/** The numbers of a transformation that is typed: lengths px, angles degrees, scales factors. */
export type TransformNumbers = {
  moveX: number;
  moveY: number;
  scaleX: number;
  scaleY: number;
  rotation: number;
  skew: number;
  reflectX: boolean;
  reflectY: boolean;
};

export const NO_TRANSFORM: TransformNumbers = {
  moveX: 0,
  moveY: 0,
  scaleX: 1,
  scaleY: 1,
  rotation: 0,
  skew: 0,
  reflectX: false,
  reflectY: false,
};

/** The map of the page of typed numbers: reflection and scale, skew, turn about `centre`, then the move. */
export function transformMap(numbers: TransformNumbers, centre: Point): Affine {
  const { reflectX, reflectY, scaleX, scaleY } = numbers;
  const linear = chain(
    rotation(numbers.rotation),
    skewX(numbers.skew),
    scaling(reflectX ? -scaleX : scaleX, reflectY ? -scaleY : scaleY),
  );
  return chain(translation(numbers.moveX, numbers.moveY), about(centre, linear));
}

/** True where a shape's own numbers are within the limits: a map can leave them. */
export function withinLimits(shape: Shape): boolean {
  const inside = (value: number, { least, most }: { least: number; most: number }): boolean =>
    value >= least && value <= most;
  return (
    inside(shape.width, LIMITS.shapeSide) &&
    inside(shape.height, LIMITS.shapeSide) &&
    inside(shape.x, LIMITS.place) &&
    inside(shape.y, LIMITS.place) &&
    inside(shape.skew, LIMITS.skew) &&
    allFills(shape).every(
      (fill) =>
        !isPlaced(fill) ||
        (inside(fill.scaleX, LIMITS.scale) &&
          inside(fill.scaleY, LIMITS.scale) &&
          inside(fill.skew, LIMITS.skew)),
    )
  );
}

/** Sets a fill's numbers so that it lies by `onPage`; the anchor takes up the move, the offset keeps its numbers. */
export function layPattern<T extends PlacedFill>(shape: Pick<Shape, 'x' | 'y'>, fill: T, onPage: Affine): T {
  const parts = placeOfLinear(onPage, fill);
  if (!parts) return fill;
  const origin: Point = { x: onPage.e, y: onPage.f };
  const base = fill.anchored === 'page' ? { x: 0, y: 0 } : { x: shape.x, y: shape.y };
  const anchor = tidyPoint(subtract(subtract(origin, base), fill.offset));
  return { ...fill, ...parts, anchor };
}

/** A fill reflected along its own axis *across* or *down*, about the shape's middle; its other numbers stay. */
export function reflectFill<T extends PlacedFill>(shape: Shape, fill: T, along: 'across' | 'down'): T {
  const onPage = pagePatternMatrix(shape, fill);
  const back = invert(onPage);
  if (!back) return fill;
  const middle = apply(back, shapeCentre(shape));
  const mirror = along === 'across' ? scaling(-1, 1) : scaling(1, -1);
  const turned =
    along === 'across' ? { ...fill, reflectX: !fill.reflectX } : { ...fill, reflectY: !fill.reflectY };
  return layPattern(shape, turned, chain(onPage, about(middle, mirror)));
}

/** Anchors a fill to its shape or to the page; it stays where it lies. */
export function anchorTo<T extends PlacedFill>(shape: Shape, fill: T, anchored: 'shape' | 'page'): T {
  if (fill.anchored === anchored) return fill;
  const sign = anchored === 'page' ? 1 : -1;
  const anchor = tidyPoint({ x: fill.anchor.x + sign * shape.x, y: fill.anchor.y + sign * shape.y });
  return { ...fill, anchored, anchor };
}

/** `fill` laid on `shape` just as `from` lies on the page, so that the two continue one pattern; both are anchored to the page. */
export function continuing<T extends PlacedFill>(fill: T, from: PlacedFill, holder: Shape): T {
  const {
    scaleX,
    scaleY,
    reflectX,
    reflectY,
    rotation: turn,
    skew,
    offset,
    anchor,
    anchored,
  } = anchorTo(holder, from, 'page');
  return { ...fill, scaleX, scaleY, reflectX, reflectY, rotation: turn, skew, offset, anchor, anchored };
}

/**
 * The shape with another outline, in its frame px as it was drawn (before turn, skew and reflection). The frame follows
 * the outline; turn, patterns and masks stay where they lie on the page. `null` for an outline without extent.
 */
export function withOutline(shape: Shape, outline: Path): Shape | null {
  const made = formOfPath(outline, (path) => formatPath(path));
  if (!made) return null;
  const { form, frame } = made;
  const onPage = chain(translation(shape.x, shape.y), frameMatrix(shape));
  const middle = apply(onPage, { x: frame.x + frame.width / 2, y: frame.y + frame.height / 2 });
  const { width, height } = frame;
  const after: Shape = { ...shape, form, width, height, x: middle.x - width / 2, y: middle.y - height / 2 };
  return carry(shape, after, null, translation(0, 0));
}

/** The patterns of a standing shape taken through a map of the page, with their masks. */
function carryPattern(shape: Shape, map: Affine, only?: string): Shape {
  return withPlaced(
    shape,
    (fill) => layPattern(shape, fill, chain(map, pagePatternMatrix(shape, fill))),
    only,
  );
}

/**
 * `after` with the patterns of `before` at the same place on the page, or taken through `change` first. The shape's
 * own mask goes with the shape through `shapeMap`; the masks of fills stay with what they mask.
 */
function carry(before: Shape, after: Shape, change: Affine | null, shapeMap: Affine): Shape {
  const back = { x: before.x - after.x, y: before.y - after.y };
  const carried = mapFills(before, (fill): Fill => {
    const mask = carryMask(fill.mask, before, after, change ?? translation(0, 0));
    const masked = mask === fill.mask ? fill : { ...fill, mask };
    if (!isPlaced(masked)) return masked;
    if (change) return layPattern(after, masked, chain(change, pagePatternMatrix(before, masked)));
    return masked.anchored === 'page' ? masked : { ...masked, anchor: tidyPoint(add(masked.anchor, back)) };
  });
  const { fills, stroke } = carried;
  return { ...after, fills, stroke, mask: carryMask(before.mask, before, after, shapeMap) };
}

/** A mask at its place on the page, taken through a map of the page. A gradient lies on the frame by itself. */
function carryMask(mask: Mask | null, before: Shape, after: Shape, map: Affine): Mask | null {
  if (!mask || mask.kind === 'gradient') return mask;
  const matrix = chain(translation(-after.x, -after.y), map, translation(before.x, before.y), mask.matrix);
  return { ...mask, matrix };
}

/** The map of the page that takes the old frame onto the new one, both turned about their own middles. */
function frameChange(to: Shape, from: Shape): Affine {
  const scale = scaling(to.width / from.width, to.height / from.height);
  const middle = shapeCentre(to);
  const old = shapeCentre(from);
  const back = invert(shapeLinear(from)) ?? scaling(1);
  return chain(translation(middle.x, middle.y), shapeLinear(to), scale, back, translation(-old.x, -old.y));
}

/** A vector of the page in a shape's own axes. */
export function inShapeAxes(shape: Shape, vector: Point): Point {
  const back = invert(shapeLinear(shape));
  return back ? applyVector(back, vector) : vector;
}

import { about, apply, applyVector, chain, invert, scaling, type Affine } from '../geom/affine';
import { add, dot, length, times, type Point } from '../geom/point';
import type { Periods } from '../lattice/span';
import type { PlacedFill } from '../recipe/fill';
import { pagePatternMatrix, shapeCentre, withPlaced, type Shape } from '../recipe/layout';
import type { UnitScene } from './unit';
import { layPattern } from '../recipe/transform';

/** What a handle lies on: the lattice of what is laid, and how far its next units lie across and down. */
export type HandleGrid = Pick<UnitScene, 'pitch'> & { lattice: Periods };

/**
 * The pattern's own handle on a shape, in page px: a hub on a lattice point near the shape's middle, and two arms that
 * end where a next unit begins. `unit` is the hub in pattern space; an arm spans `repeats` units.
 */
export type PatternHandle = {
  hub: Point;
  across: Point;
  down: Point;
  unit: Point;
  repeatsAcross: number;
  repeatsDown: number;
};

/** A picture's own size as a lattice: its handle lies on a corner, and the arms end at the others. */
export const pictureGrid = ({ width, height }: { width: number; height: number }): HandleGrid => ({
  pitch: { width, height },
  lattice: { a: { x: width, y: 0 }, b: { x: 0, y: height } },
});

/** Where a fill's handle lies. Arms are given as many repeats as they need to be at least `reach` page px long. */
export function patternHandle(
  shape: Shape,
  fill: PlacedFill,
  scene: HandleGrid,
  reach: number,
): PatternHandle | null {
  const matrix = pagePatternMatrix(shape, fill);
  const inverse = invert(matrix);
  if (!inverse) return null;
  const unit = nearestLatticePoint(scene.lattice, apply(inverse, shapeCentre(shape)));
  const hub = apply(matrix, unit);
  const [across, repeatsAcross] = arm(matrix, { x: scene.pitch.width, y: 0 }, reach);
  const [down, repeatsDown] = arm(matrix, { x: 0, y: scene.pitch.height }, reach);
  return { hub, across: add(hub, across), down: add(hub, down), unit, repeatsAcross, repeatsDown };
}

/** The factor by which pulling an arm's end from where it was to `pointer` scales the pattern along the arm; at least 0.001. */
export function armFactor(hub: Point, end: Point, pointer: Point): number {
  const along = { x: end.x - hub.x, y: end.y - hub.y };
  const size = dot(along, along);
  if (size === 0) return 1;
  return Math.max(0.001, dot({ x: pointer.x - hub.x, y: pointer.y - hub.y }, along) / size);
}

/** The shape with its pattern scaled about a handle's hub, by factors along the pattern's own axes. */
export function scalePatternAt(
  shape: Shape,
  unit: Point,
  across: number,
  down: number,
  only?: string,
): Shape {
  return withPlaced(
    shape,
    (fill) =>
      layPattern(shape, fill, chain(pagePatternMatrix(shape, fill), about(unit, scaling(across, down)))),
    only,
  );
}

function arm(matrix: Affine, vector: Point, reach: number): [Point, number] {
  const one = applyVector(matrix, vector);
  const size = length(one);
  const repeats = size > 0 && size < reach ? 2 ** Math.ceil(Math.log2(reach / size)) : 1;
  return [times(one, repeats), repeats];
}

function nearestLatticePoint(lattice: Periods, point: Point): Point {
  const { a, b } = lattice;
  const det = a.x * b.y - a.y * b.x;
  const i = Math.round((point.x * b.y - point.y * b.x) / det);
  const j = Math.round((a.x * point.y - a.y * point.x) / det);
  return { x: a.x * i + b.x * j, y: a.y * i + b.y * j };
}

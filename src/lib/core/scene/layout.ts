import type { Affine } from '../geom/affine';
import { chain, invert, multiply, scaling, translation } from '../geom/affine';
import { formatPath, pathBox, type Path } from '../geom/path';
import type { Box } from '../geom/box';
import { boxCorners } from '../geom/polygon';
import type { Point } from '../geom/point';
import { strokeBox } from '../geom/stroke-box';
import type { Hex } from '../colour/parse';
import type { PictureLook } from '../colour/look';
import type { Colourway } from '../colour/colourway';
import { resolveSlots, type ColourSlot } from '../colour/slots';
import { plainColours } from '../colour/tint';
import type { BlendMode } from '../colour/blend';
import { tidyPoint, type Fill, type PatternFill } from '../recipe/fill';
import { sortedStops, type Gradient } from '../recipe/gradient';
import { gradientMatrix } from '../recipe/gradient-place';
import {
  frameMatrix,
  heldShapes,
  liesUpright,
  pagePatternMatrix,
  MITER_LIMIT,
  shapeOutline,
  type Layout,
  type Pen,
  type Shape,
} from '../recipe/layout';
import type { Mask, PaintedMask, PictureMask } from '../recipe/mask';
import { withoutGround, type UnitScene } from './unit';

/**
 * A pattern at one revision, compiled, with its slots. `key` is the same for the same drawing (pattern and revision).
 * `bare` is the drawing for uses with another ground: the same, unless its own ground draws in the unit.
 */
export type CompiledPattern = {
  key: string;
  name: string;
  scene: UnitScene;
  slots: ColourSlot[];
  colourways: readonly Colourway[];
  bare: CompiledPattern;
};

/** Makes a compiled pattern of a scene. */
export function compiledPattern(
  key: string,
  name: string,
  scene: UnitScene,
  slots: ColourSlot[],
  colourways: readonly Colourway[] = [],
): CompiledPattern {
  const whole: Omit<CompiledPattern, 'bare'> & { bare?: CompiledPattern } = {
    key,
    name,
    scene,
    slots,
    colourways,
  };
  const bare = scene.ground?.art
    ? compiledPattern(`${key}~`, name, withoutGround(scene), slots, colourways)
    : null;
  whole.bare = bare ?? (whole as CompiledPattern);
  return whole as CompiledPattern;
}

/** A shape ready to draw. `d` has its origin at (x, y), the upper left corner of the shape's frame. */
export type ShapeScene = {
  id: string;
  name: string;
  x: number;
  y: number;
  d: string;
  /** The turned outline's box on the page. */
  box: Box;
  /** True where the outline is its box: a plain rectangle that is not turned. */
  upright: boolean;
  hidden: boolean;
  /** Bottom first; what is not shown is left out. */
  paints: ShapePaint[];
  /** What limits the whole shape: a soft brush's own rim, and its mask. */
  masks: MaskScene[];
  /** How the outline is inked: as an area, or as a line along it with a pen. */
  pen: Pen | null;
  /** Its stroke, above the fills. */
  stroke: (Pick<ShapeScene, 'box' | 'paints'> & { pen: Pen }) | null;
};

/** A gradient ready to draw: `matrix` takes (0,0)–(1,0), or the unit circle, to frame px. */
export type GradientScene = {
  kind: Gradient['kind'];
  matrix: Affine;
  stops: { at: number; colour: Hex; opacity: number }[];
};

export type MaskScene = { kind: 'gradient'; gradient: GradientScene } | PaintedMask | PictureMask;

/** How a fill lies over what is below it. `fill` is its id. */
export type PaintLayer = { fill: string; opacity: number; blend: BlendMode; mask: MaskScene | null };

export type ShapePaint = PaintLayer & ShapeInk;

type ShapeInk =
  | { kind: 'colour'; colour: Hex }
  | { kind: 'gradient'; gradient: GradientScene }
  /** `matrix` takes the picture's pixels to frame px. */
  | { kind: 'picture'; asset: string; width: number; height: number; matrix: Affine }
  | {
      kind: 'pattern';
      pattern: CompiledPattern;
      /** Pattern space → frame space. */
      matrix: Affine;
      colours: Record<string, Hex>;
      /** How the pictures of the pattern are recoloured. */
      look: PictureLook | null;
      /** A gradient over the motifs alone. */
      wash: GradientScene | null;
      ground: (FlatGround & { opacity: number }) | null;
    };

/** A ground in colours: flat, or a gradient with the period `to` in pattern px. */
export type FlatGround = {
  colour: Hex;
  gradient: { to: Point; stops: { at: number; colour: Hex }[] } | null;
};

export type PatternPaint = Extract<ShapePaint, { kind: 'pattern' }>;
export type PicturePaint = Extract<ShapePaint, { kind: 'picture' }>;

export type LayoutScene = { width: number; height: number; background: Hex | null; shapes: ShapeScene[] };

/** Finds the compiled pattern of a fill; `null` where it is gone. */
export type PatternLookup = (fill: PatternFill) => CompiledPattern | null;

/** Compiles a layout: every shape with the paint of its fill. */
export function compileLayout(layout: Layout, lookup: PatternLookup): LayoutScene {
  const { width, height, background } = layout;
  const hidden = heldShapes(layout, 'hidden');
  const shapes = layout.shapes.filter((shape) => !hidden(shape));
  return { width, height, background, shapes: shapes.map((shape) => compileShape(shape, lookup)) };
}

/** Compiles one shape. */
export function compileShape(shape: Shape, lookup: PatternLookup): ShapeScene {
  const { id, name, x, y, hidden } = shape;
  const upright = shape.form.kind === 'rectangle' && shape.form.radius === 0 && liesUpright(shape);
  const path = shapeOutline(shape);
  const box = pathBox(path) ?? { x: 0, y: 0, width: 0, height: 0 };
  return {
    id,
    name,
    x,
    y,
    d: formatPath(path),
    box: { ...box, x: box.x + x, y: box.y + y },
    upright,
    hidden,
    ...compilePaints(shape, lookup),
    pen: null,
    stroke: strokeScene(shape, path, lookup),
  };
}

/**
 * Compiles a shape again after a change: where its form, size and turn are still those of `before`, its outline is
 * taken over from the scene of then.
 */
export function recompileShape(
  shape: Shape,
  before: Shape,
  scene: ShapeScene,
  lookup: PatternLookup,
): ShapeScene {
  const sameOutline =
    shape.form === before.form &&
    shape.width === before.width &&
    shape.height === before.height &&
    shape.rotation === before.rotation &&
    shape.skew === before.skew &&
    shape.reflectX === before.reflectX &&
    shape.reflectY === before.reflectY;
  if (!sameOutline) return compileShape(shape, lookup);
  const { name, x, y, hidden } = shape;
  const box = { ...scene.box, x: scene.box.x + x - before.x, y: scene.box.y + y - before.y };
  const stroke = restroke(shape, before, scene, lookup);
  return { ...scene, name, x, y, hidden, box, ...compilePaints(shape, lookup), stroke };
}

function compilePaints(shape: Shape, lookup: PatternLookup): Pick<ShapeScene, 'paints' | 'masks'> {
  const masks = [softRim(shape), maskScene(shape.mask, shape)].filter((mask) => mask !== null);
  return { paints: paintsOf(shape, shape.fills, lookup), masks };
}

function paintsOf(shape: Shape, fills: readonly Fill[], lookup: PatternLookup): ShapePaint[] {
  return fills.flatMap((fill): ShapePaint[] => {
    const ink = fill.shown && !shape.hidden ? inkOf(shape, fill, lookup) : null;
    if (!ink) return [];
    const { id, opacity, blend } = fill;
    return [{ fill: id, opacity, blend, mask: maskScene(fill.mask, shape), ...ink }];
  });
}

function strokeScene(shape: Shape, path: Path, lookup: PatternLookup): ShapeScene['stroke'] {
  const { stroke, x, y } = shape;
  const box =
    stroke && stroke.fills.length > 0 ? strokeBox(path, { ...stroke, miterLimit: MITER_LIMIT }) : null;
  if (!stroke || !box) return null;
  const { fills, ...pen } = stroke;
  return {
    pen,
    box: { ...box, x: box.x + x, y: box.y + y },
    paints: paintsOf(shape, fills, lookup),
  };
}

/** The stroke of a shape whose outline stayed: its box stays where its own numbers do. */
function restroke(
  shape: Shape,
  before: Shape,
  scene: ShapeScene,
  lookup: PatternLookup,
): ShapeScene['stroke'] {
  const [now, then] = [shape.stroke, before.stroke];
  const same =
    now &&
    then &&
    scene.stroke &&
    now.width === then.width &&
    now.cap === then.cap &&
    now.join === then.join &&
    now.dashes === then.dashes;
  if (!same || !scene.stroke) return strokeScene(shape, shapeOutline(shape), lookup);
  const { pen, box } = scene.stroke;
  const moved = { ...box, x: box.x + shape.x - before.x, y: box.y + shape.y - before.y };
  return { pen, box: moved, paints: paintsOf(shape, now.fills, lookup) };
}

/** A brush's softness as a mask: its stroke shows, fading from its core to its rim. */
function softRim(shape: Shape): MaskScene | null {
  const { form } = shape;
  if (form.kind !== 'brush' || form.softness === 0) return null;
  const { points, size, softness } = form;
  const matrix = chain(frameMatrix(shape), scaling(shape.width / form.width, shape.height / form.height));
  const line = points.length === 2 ? [...points, ...points] : points;
  const stroke = { mode: 'restore' as const, size, softness, strength: 1, points: line };
  return { kind: 'painted', starts: 'hidden', matrix, strokes: [stroke] };
}

function gradientScene(gradient: Gradient, shape: Shape): GradientScene {
  const stops = sortedStops(gradient).map(({ at, colour, opacity }) => ({ at, colour, opacity }));
  return { kind: gradient.kind, matrix: gradientMatrix(gradient, shape), stops };
}

function maskScene(mask: Mask | null, shape: Shape): MaskScene | null {
  return mask?.kind === 'gradient'
    ? { kind: 'gradient', gradient: gradientScene(mask.gradient, shape) }
    : mask;
}

/** Pattern or picture space → frame px. */
function inFrame(shape: Shape, fill: Extract<Fill, { kind: 'pattern' | 'picture' }>): Affine {
  const onPage = pagePatternMatrix(shape, fill);
  const { x, y } = tidyPoint({ x: onPage.e - shape.x, y: onPage.f - shape.y });
  return { ...onPage, e: x, f: y };
}

function inkOf(shape: Shape, fill: Fill, lookup: PatternLookup): ShapeInk | null {
  switch (fill.kind) {
    case 'colour':
      return { kind: 'colour', colour: fill.colour };
    case 'gradient':
      return { kind: 'gradient', gradient: gradientScene(fill.gradient, shape) };
    case 'picture': {
      const { asset, width, height } = fill;
      return { kind: 'picture', asset, width, height, matrix: inFrame(shape, fill) };
    }
    case 'pattern':
      return patternInk(shape, fill, lookup);
  }
}

function patternInk(shape: Shape, fill: PatternFill, lookup: PatternLookup): ShapeInk | null {
  const found = lookup(fill);
  if (!found) return null;
  const pattern = fill.ground.kind === 'own' ? found : found.bare;
  const colours = coloursOf(fill, pattern);
  return {
    kind: 'pattern',
    pattern,
    matrix: inFrame(shape, fill),
    colours,
    look: fill.look ?? null,
    wash: fill.wash && gradientScene(fill.wash, shape),
    ground: groundOf(fill, pattern, colours),
  };
}

/** The colours of a use: the pattern's own, those of its colourway over them, its own over all. */
export function coloursOf(
  fill: Pick<PatternFill, 'colourway' | 'colours'>,
  { slots, colourways }: Pick<CompiledPattern, 'slots' | 'colourways'>,
): Record<string, Hex> {
  const way = colourways.find((one) => one.id === fill.colourway);
  return resolveSlots(slots, { ...(way ? plainColours(way.colours) : {}), ...plainColours(fill.colours) });
}

function groundOf(
  fill: PatternFill,
  pattern: CompiledPattern,
  colours: Record<string, Hex>,
): (FlatGround & { opacity: number }) | null {
  if (fill.ground.kind === 'none') return null;
  const opacity = fill.groundOpacity;
  if (fill.ground.kind === 'colour') return { colour: fill.ground.colour, gradient: null, opacity };
  const own = resolveGround(pattern.scene, colours);
  return own && { ...own, opacity };
}

/** A pattern's own ground in colours; `null` where it is clear. */
export function resolveGround(
  { ground }: UnitScene,
  colours: Readonly<Record<string, Hex>>,
): FlatGround | null {
  const colour = ground ? colours[ground.slot] : undefined;
  if (!ground || colour === undefined) return null;
  const gradient = ground.gradient && {
    to: ground.gradient.to,
    stops: ground.gradient.stops.map(({ at, slot }) => ({ at, colour: colours[slot] ?? colour })),
  };
  return { colour, gradient };
}

/** A shape's stroke as a shape of its own at the same corner, or nothing. */
export const strokeOf = (shape: ShapeScene): ShapeScene | null =>
  shape.stroke && { ...shape, ...shape.stroke, id: `${shape.id}-stroke`, upright: false, stroke: null };

/** All paints of a shape, with those of its stroke. */
export const allPaints = ({ paints, stroke }: ShapeScene): ShapePaint[] =>
  stroke ? [...paints, ...stroke.paints] : paints;

/** The part of pattern space that shows through a box of the page, as a convex polygon; `null` for a singular fill. */
export function patternRegion(shape: ShapeScene, paint: PatternPaint, onPage: Box): Point[] | null {
  const inverse = invert(multiply(translation(shape.x, shape.y), paint.matrix));
  return inverse ? boxCorners(inverse, onPage) : null;
}

/** The factor by which a fill's matrix enlarges lengths, as the root of its area factor. */
export function meanScale(matrix: Affine): number {
  return Math.sqrt(Math.abs(matrix.a * matrix.d - matrix.b * matrix.c));
}

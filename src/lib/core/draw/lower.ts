import { chain, scaling, type Affine } from '../geom/affine';
import { formatPath, pathBox, type Path } from '../geom/path';
import { strokeBox } from '../geom/stroke-box';
import { tidyPoint, type Fill, type LayoutFill, type PatternFill, type PlacedFill } from '../recipe/fill';
import { sortedStops, type Gradient } from '../recipe/gradient';
import { gradientMatrix } from '../recipe/gradient-place';
import {
  frameMatrix,
  groupsOf,
  heldShapes,
  liesUpright,
  pagePatternMatrix,
  MITER_LIMIT,
  shapeOutline,
  type Layout,
  type Shape,
} from '../recipe/layout';
import type { Mask } from '../recipe/mask';
import { coloursOf, resolveGround, type PatternLookup } from '../scene/pattern';
import { NestedPages } from './nested';
import {
  groundInk,
  type DisplayList,
  type DrawItem,
  type DrawnMask,
  type DrawnShape,
  type GradientInk,
  type Layer,
  type PathItem,
} from './list';

/** What a layout draws. Patterns and layouts that `lookup` does not know are left out. */
export function lowerLayout(layout: Layout, lookup: PatternLookup): DisplayList {
  const { width, height, background } = layout;
  const hidden = heldShapes(layout, 'hidden');
  const shapes = layout.shapes.filter((shape) => !hidden(shape));
  const drawn = shapes.map((shape) => lowerShape(shape, lookup));
  return { width, height, background, shapes: drawn, ...groupsDrawn(layout) };
}

function groupsDrawn({ groups, shapes }: Layout): Pick<DisplayList, 'groups'> {
  const outermost = groups.filter(({ parent }) => parent === null);
  if (outermost.length === 0) return {};
  const inside = (id: string): Set<string> =>
    new Set(shapes.filter((one) => groupsOf(groups, one.group).at(-1)?.id === id).map((one) => one.id));
  return { groups: outermost.map(({ id, name }) => ({ name, shapes: inside(id) })) };
}

/** What one shape draws. */
export function lowerShape(shape: Shape, lookup: PatternLookup): DrawnShape {
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
    ...layersAndMasks(shape, lookup),
    pen: null,
    text: textOf(shape),
    stroke: strokeDrawn(shape, path, lookup),
  };
}

/**
 * What a shape draws after a change: where its form, size and turn are still those of `before`, its outline is
 * taken over from the scene of then.
 */
export function relowerShape(
  shape: Shape,
  before: Shape,
  scene: DrawnShape,
  lookup: PatternLookup,
): DrawnShape {
  const sameOutline =
    shape.form === before.form &&
    shape.width === before.width &&
    shape.height === before.height &&
    shape.rotation === before.rotation &&
    shape.skew === before.skew &&
    shape.reflectX === before.reflectX &&
    shape.reflectY === before.reflectY;
  if (!sameOutline) return lowerShape(shape, lookup);
  const { name, x, y, hidden } = shape;
  const box = { ...scene.box, x: scene.box.x + x - before.x, y: scene.box.y + y - before.y };
  const stroke = restroked(shape, before, scene, lookup);
  return { ...scene, name, x, y, hidden, box, ...layersAndMasks(shape, lookup), stroke };
}

/** The words of a shape as they stand in its frame. */
function textOf(shape: Shape): DrawnShape['text'] {
  const { form } = shape;
  if (form.kind !== 'text') return null;
  const toFrame = scaling(shape.width / form.width, shape.height / form.height);
  return { form, matrix: chain(frameMatrix(shape), toFrame) };
}

function layersAndMasks(shape: Shape, lookup: PatternLookup): Pick<DrawnShape, 'layers' | 'masks'> {
  const masks = [softRim(shape), drawnMask(shape.mask, shape)].filter((mask) => mask !== null);
  return { layers: layersOf(shape, shape.fills, lookup), masks };
}

function layersOf(shape: Shape, fills: readonly Fill[], lookup: PatternLookup): Layer[] {
  return fills.flatMap((fill): Layer[] => {
    const items = fill.shown && !shape.hidden ? itemsFor(shape, fill, lookup) : [];
    if (items.length === 0) return [];
    const { id, blend } = fill;
    return [{ fill: id, blend, mask: drawnMask(fill.mask, shape), items }];
  });
}

function strokeDrawn(shape: Shape, path: Path, lookup: PatternLookup): DrawnShape['stroke'] {
  const { stroke, x, y } = shape;
  const box =
    stroke && stroke.fills.length > 0 ? strokeBox(path, { ...stroke, miterLimit: MITER_LIMIT }) : null;
  if (!stroke || !box) return null;
  const { fills, ...pen } = stroke;
  return {
    pen,
    box: { ...box, x: box.x + x, y: box.y + y },
    layers: layersOf(shape, fills, lookup),
  };
}

/** The stroke of a shape whose outline stayed: its box stays where its own numbers do. */
function restroked(
  shape: Shape,
  before: Shape,
  scene: DrawnShape,
  lookup: PatternLookup,
): DrawnShape['stroke'] {
  const [now, then] = [shape.stroke, before.stroke];
  const same =
    now &&
    then &&
    scene.stroke &&
    now.fills.length > 0 &&
    now.width === then.width &&
    now.cap === then.cap &&
    now.join === then.join &&
    now.dashes === then.dashes;
  if (!same || !scene.stroke) return strokeDrawn(shape, shapeOutline(shape), lookup);
  const { pen, box } = scene.stroke;
  const moved = { ...box, x: box.x + shape.x - before.x, y: box.y + shape.y - before.y };
  return { pen, box: moved, layers: layersOf(shape, now.fills, lookup) };
}

/** A brush's softness as a mask: its stroke shows, fading from its core to its rim. */
function softRim(shape: Shape): DrawnMask | null {
  const { form } = shape;
  if (form.kind !== 'brush' || form.softness === 0) return null;
  const { points, size, softness } = form;
  const matrix = chain(frameMatrix(shape), scaling(shape.width / form.width, shape.height / form.height));
  const line = points.length === 2 ? [...points, ...points] : points;
  const stroke = { mode: 'restore' as const, size, softness, strength: 1, points: line };
  return { kind: 'painted', starts: 'hidden', matrix, strokes: [stroke] };
}

function gradientInk(gradient: Gradient, shape: Shape): GradientInk {
  const stops = sortedStops(gradient).map(({ at, colour, opacity }) => ({ at, colour, opacity }));
  return { kind: gradient.kind, matrix: gradientMatrix(gradient, shape), spread: 'pad', stops };
}

function drawnMask(mask: Mask | null, shape: Shape): DrawnMask | null {
  return mask?.kind === 'gradient' ? { kind: 'gradient', gradient: gradientInk(mask.gradient, shape) } : mask;
}

/** Pattern or picture space → frame px. */
function inFrame(shape: Shape, fill: PlacedFill): Affine {
  const onPage = pagePatternMatrix(shape, fill);
  const { x, y } = tidyPoint({ x: onPage.e - shape.x, y: onPage.f - shape.y });
  return { ...onPage, e: x, f: y };
}

/** What a fill draws within the outline of its shape, the lowest first. */
function itemsFor(shape: Shape, fill: Fill, lookup: PatternLookup): DrawItem[] {
  const { opacity } = fill;
  switch (fill.kind) {
    case 'colour':
      return [{ kind: 'path', ink: fill.colour, opacity }];
    case 'gradient':
      return [{ kind: 'path', ink: gradientInk(fill.gradient, shape), opacity }];
    case 'picture': {
      const { asset, width, height } = fill;
      return [{ kind: 'picture', asset, look: null, width, height, matrix: inFrame(shape, fill), opacity }];
    }
    case 'layout':
      return pageItems(shape, fill, lookup);
    case 'pattern':
      return patternItems(shape, fill, lookup);
  }
}

function pageItems(shape: Shape, fill: LayoutFill, lookup: PatternLookup): DrawItem[] {
  const list = pageWithin(fill.layout, lookup);
  return list ? [{ kind: 'page', list, matrix: inFrame(shape, fill), opacity: fill.opacity }] : [];
}

function patternItems(shape: Shape, fill: PatternFill, lookup: PatternLookup): DrawItem[] {
  const found = lookup(fill);
  if (!found) return [];
  const pattern = fill.ground.kind === 'own' ? found : found.bare;
  const colours = coloursOf(fill, pattern);
  const matrix = inFrame(shape, fill);
  const ground = groundItem(fill, resolveGround(pattern.scene, colours), matrix);
  const wash = fill.wash && gradientInk(fill.wash, shape);
  const look = fill.look ?? null;
  const { opacity } = fill;
  return [...(ground ? [ground] : []), { kind: 'tiled', pattern, matrix, colours, look, opacity, wash }];
}

function groundItem(
  { ground, groundOpacity: opacity }: PatternFill,
  own: ReturnType<typeof resolveGround>,
  matrix: Affine,
): PathItem | null {
  switch (ground.kind) {
    case 'none':
      return null;
    case 'colour':
      return { kind: 'path', ink: ground.colour, opacity };
    case 'own':
      return own && { kind: 'path', ink: groundInk(own, matrix), opacity };
  }
}

/** The pages that lookups know, each lowered once. */
const nested = new WeakMap<PatternLookup, NestedPages>();

function pageWithin(id: string, lookup: PatternLookup): DisplayList | null {
  const pages = nested.get(lookup) ?? new NestedPages(lookup.pages ?? new Map());
  nested.set(lookup, pages);
  return pages.get(id, (layout) => lowerLayout(layout, lookup));
}

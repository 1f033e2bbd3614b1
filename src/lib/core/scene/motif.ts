import { boxOfPoints, grow, intersectBoxes, unionBoxes, type Box } from '../geom/box';
import { outermost } from '../geom/outermost';
import { parsePath, pathBox, transformPath, formatPath, type Path } from '../geom/path';
import { formPath } from '../geom/shapes';
import { IDENTITY, apply, translation, type Affine } from '../geom/affine';
import type { Point } from '../geom/point';
import type {
  DrawingElement,
  FillRule,
  Motif,
  MotifContent,
  Paint,
  PicturePaint,
  Stroke,
} from '../recipe/recipe';

/** One path to draw, in motif space, painted by slots. */
export type Element = {
  path: Path;
  d: string;
  fill: Paint | null;
  fillRule: FillRule;
  stroke: Stroke | null;
  opacity: number;
  picture: PicturePaint | null;
  clip: { path: Path; rule: FillRule } | null;
};

/** An element of a path alone: no picture, no clip. */
export function plainElement(
  path: Path,
  paint: { fill?: Paint | null; fillRule?: FillRule; stroke?: Stroke | null; opacity?: number },
): Element {
  const { fill = null, fillRule = 'nonzero', stroke = null, opacity = 1 } = paint;
  return { path, d: formatPath(path), fill, fillRule, stroke, opacity, picture: null, clip: null };
}

/** A motif made ready to draw: its paths and the box of all their ink (stroke widths included), px about its middle. */
export type CompiledMotif = { elements: Element[]; box: Box };

/** Compiles a motif. Path data that cannot be read are left out; `checkRecipe` names them before anything is saved. */
export function compileMotif(motif: Motif): CompiledMotif {
  const elements = elementsOf(motif.content);
  const boxes = elements.map((element) => elementBox(element)).filter((box): box is Box => box !== null);
  return { elements, box: unionBoxes(boxes) ?? { x: 0, y: 0, width: 0, height: 0 } };
}

/**
 * The box of an element's ink after `matrix`, or `null` where it has none. Exact for fills and for straight lines;
 * other strokes count as far as they could reach.
 */
export function elementBox(element: Element, matrix: Affine = IDENTITY): Box | null {
  const { path, stroke, clip } = element;
  if (stroke && element.fill === null && isStraightLine(path)) return lineBox(path, stroke, matrix);
  const box = pathBox(transformPath(matrix, outermost(path)));
  const inked = box && stroke ? grow(box, strokeReach(stroke, path) * largestScale(matrix)) : box;
  if (!inked || !clip) return inked;
  const window = pathBox(transformPath(matrix, outermost(clip.path)));
  return window && intersectBoxes(inked, window);
}

/** How far a stroke can reach from its path, in px of the path's space. */
function strokeReach(stroke: Stroke, path: Path): number {
  const half = stroke.width / 2;
  if (stroke.join === 'miter' && hasCorners(path)) return half * Math.max(1, stroke.miterLimit);
  return stroke.cap === 'square' ? half * Math.SQRT2 : half;
}

function hasCorners(path: Path): boolean {
  const first = path.findIndex((segment) => segment.op !== 'M');
  return first >= 0 && path.findIndex((segment, index) => index > first && segment.op !== 'M') >= 0;
}

function isStraightLine(path: Path): boolean {
  return path.length === 2 && path[0]?.op === 'M' && path[1]?.op === 'L';
}

function lineBox(path: Path, stroke: Stroke, matrix: Affine): Box | null {
  const [start, end] = path;
  if (start?.op !== 'M' || end?.op !== 'L') return null;
  const [from, to] = [start.to, end.to];
  const half = stroke.width / 2;
  const size = Math.hypot(to.x - from.x, to.y - from.y);
  if (size === 0 || stroke.cap === 'round') return pathBoxGrown([from, to], half, matrix);
  const along = { x: ((to.x - from.x) / size) * half, y: ((to.y - from.y) / size) * half };
  const out = stroke.cap === 'square' ? 1 : 0;
  const corners = [from, to].flatMap((end, index) => {
    const sign = index === 0 ? -out : out;
    const tip = { x: end.x + along.x * sign, y: end.y + along.y * sign };
    return [
      apply(matrix, { x: tip.x - along.y, y: tip.y + along.x }),
      apply(matrix, { x: tip.x + along.y, y: tip.y - along.x }),
    ];
  });
  return boxOfPoints(corners);
}

function pathBoxGrown(points: readonly Point[], by: number, matrix: Affine): Box | null {
  const box = boxOfPoints(points.map((point) => apply(matrix, point)));
  return box && grow(box, by * largestScale(matrix));
}

function largestScale(matrix: Affine): number {
  return Math.max(Math.hypot(matrix.a, matrix.b), Math.hypot(matrix.c, matrix.d));
}

/** One element of a drawing made ready; `null` where its path data cannot be read. */
export function compileElement(element: DrawingElement): Element | null {
  const parsed = parsePath(element.d);
  if (!parsed.ok) return null;
  const { fill, fillRule, stroke, opacity, picture = null } = element;
  const clip = element.clip && parsePath(element.clip.d);
  return {
    path: parsed.path,
    d: formatPath(parsed.path),
    fill,
    fillRule,
    stroke,
    opacity,
    picture,
    clip: clip?.ok && element.clip ? { path: clip.path, rule: element.clip.rule } : null,
  };
}

function elementsOf(content: MotifContent): Element[] {
  switch (content.kind) {
    case 'form': {
      const centred = translation(-content.width / 2, -content.height / 2);
      const path = transformPath(centred, formPath(content.form, content.width, content.height));
      return [plainElement(path, { fill: content.slot })];
    }
    case 'line': {
      const half = content.length / 2;
      const path: Path = [
        { op: 'M', to: { x: -half, y: 0 } },
        { op: 'L', to: { x: half, y: 0 } },
      ];
      return [plainElement(path, { stroke: plainStroke(content.slot, content.thickness, content.cap) })];
    }
    case 'drawing':
      return content.elements.flatMap((element) => compileElement(element) ?? []);
  }
}

/** A solid stroke with mitred joins. */
export const plainStroke = (slot: string, width: number, cap: Stroke['cap'] = 'butt'): Stroke => ({
  slot,
  width,
  cap,
  join: 'miter',
  miterLimit: 4,
  dashes: [],
});

import {
  about,
  chain,
  determinant,
  isIdentity,
  multiply,
  rotation,
  translation,
  type Affine,
} from '../geom/affine';
import { unionBoxes, type Box } from '../geom/box';
import { formatPath, parsePath, transformPath, type Path } from '../geom/path';
import { formPath } from '../geom/shapes';
import { nearly, wrapDegrees } from '../num/tolerance';
import type {
  DrawingElement,
  ElementSource,
  FillRule,
  MotifContent,
  Paint,
  PicturePaint,
  Stroke,
} from '../recipe/recipe';
import { compileElement, elementBox, plainStroke } from './motif';

export type DrawingContent = Extract<MotifContent, { kind: 'drawing' }>;

/** Lengths in drawings are kept to a millionth of a px: grids of 1 px, 20 px or 5 mm stay exact. */
const DIGITS = 6;

/** Path data as drawings keep them. */
export const pathText = (path: Path): string => formatPath(path, DIGITS);

/** An element's path; empty where its data cannot be read. */
export function pathOf(element: Pick<DrawingElement, 'd'>): Path {
  const read = parsePath(element.d);
  return read.ok ? read.path : [];
}

/** A motif's content as a drawing that can be worked on; its look and its place stay. */
export function asDrawing(content: MotifContent): DrawingContent {
  switch (content.kind) {
    case 'drawing':
      return content;
    case 'form': {
      const { form, width, height, slot } = content;
      const source = {
        kind: 'form' as const,
        form,
        x: -width / 2,
        y: -height / 2,
        width,
        height,
        rotation: 0,
      };
      return drawingOf([formElement(source, { fill: slot, stroke: null })]);
    }
    case 'line': {
      const half = content.length / 2;
      return drawingOf([
        {
          d: pathText([
            { op: 'M', to: { x: -half, y: 0 } },
            { op: 'L', to: { x: half, y: 0 } },
          ]),
          fill: null,
          fillRule: 'nonzero',
          stroke: plainStroke(content.slot, content.thickness, content.cap),
          opacity: 1,
        },
      ]);
    }
  }
}

/** A drawing of elements, measured. */
export function drawingOf(elements: DrawingElement[], asset: string | null = null): DrawingContent {
  const box = elementsBox(elements);
  return {
    kind: 'drawing',
    asset,
    width: Math.max(box?.width ?? 0, 0.01),
    height: Math.max(box?.height ?? 0, 0.01),
    elements,
  };
}

/** The box of the elements' ink in motif px, or `null` for none. */
export function elementsBox(elements: readonly DrawingElement[]): Box | null {
  return unionBoxes(
    elements.flatMap((element) => {
      const compiled = compileElement(element);
      return (compiled && elementBox(compiled)) ?? [];
    }),
  );
}

type FormSource = Extract<ElementSource, { kind: 'form' }>;

/** An element from a form and its numbers. */
export function formElement(
  source: FormSource,
  paint: { fill: Paint | null; stroke: Stroke | null; opacity?: number },
): DrawingElement {
  const { form, x, y, width, height } = source;
  const turn = about({ x: x + width / 2, y: y + height / 2 }, rotation(source.rotation));
  const path = transformPath(chain(turn, translation(x, y)), formPath(form, width, height));
  return { d: pathText(path), fillRule: 'nonzero', opacity: 1, ...paint, source };
}

/** An element from a path. */
export function pathElement(
  path: Path,
  paint: { fill: Paint | null; stroke: Stroke | null; fillRule?: FillRule; opacity?: number },
): DrawingElement {
  return { d: pathText(path), fillRule: 'nonzero', opacity: 1, ...paint };
}

/** An element that shows a picture through a matrix (picture px → motif px). */
export function pictureElement(picture: PicturePaint): DrawingElement {
  const { width, height, matrix } = picture;
  const frame = transformPath(matrix, formPath({ kind: 'rectangle', radius: 0 }, width, height));
  return { d: pathText(frame), fill: null, fillRule: 'nonzero', stroke: null, opacity: 1, picture };
}

/**
 * An element through a matrix. Strokes grow with the matrix's mean scale. The numbers it was made from are kept where
 * they can still say what it is: a form through moves, turns and sizes along its own sides; text through moves and turns.
 */
export function transformElement(element: DrawingElement, matrix: Affine): DrawingElement {
  if (isIdentity(matrix)) return element;
  const scale = Math.sqrt(Math.abs(determinant(matrix)));
  const { fill, stroke, picture, clip, source, ...rest } = element;
  const kept = source && sourceThrough(source, matrix);
  return {
    ...rest,
    d: pathText(transformPath(matrix, pathOf(element))),
    fill:
      fill !== null && typeof fill === 'object' ? { ...fill, matrix: multiply(matrix, fill.matrix) } : fill,
    stroke: stroke && {
      ...stroke,
      width: tidy(stroke.width * scale),
      dashes: stroke.dashes.map((dash) => tidy(dash * scale)),
      ...(stroke.dashOffset ? { dashOffset: tidy(stroke.dashOffset * scale) } : {}),
    },
    ...(picture ? { picture: { ...picture, matrix: multiply(matrix, picture.matrix) } } : {}),
    ...(clip ? { clip: { ...clip, d: pathText(transformPath(matrix, pathOf(clip))) } } : {}),
    ...(kept ? { source: kept } : {}),
  };
}

function sourceThrough(source: ElementSource, m: Affine): ElementSource | null {
  const [across, down] = [Math.hypot(m.a, m.b), Math.hypot(m.c, m.d)];
  const turns = nearly(across, 1) && nearly(down, 1) && determinant(m) > 0;
  const turn = (Math.atan2(m.b, m.a) * 180) / Math.PI;
  if (source.kind === 'text') {
    if (!turns) return null;
    const x = m.a * source.x + m.c * source.y + m.e;
    const y = m.b * source.x + m.d * source.y + m.f;
    return { ...source, x, y, rotation: wrapDegrees(source.rotation + turn) };
  }
  const { x, y, width, height } = source;
  const middle = { x: x + width / 2, y: y + height / 2 };
  const at = { x: m.a * middle.x + m.c * middle.y + m.e, y: m.b * middle.x + m.d * middle.y + m.f };
  const upright = nearly(m.b, 0) && nearly(m.c, 0) && m.a > 0 && m.d > 0;
  if (turns) {
    return {
      ...source,
      x: tidy(at.x - width / 2),
      y: tidy(at.y - height / 2),
      rotation: wrapDegrees(source.rotation + turn),
    };
  }
  if (!upright || !nearly(source.rotation, 0)) return null;
  const size = { width: width * m.a, height: height * m.d };
  return { ...source, ...size, x: tidy(at.x - size.width / 2), y: tidy(at.y - size.height / 2) };
}

const tidy = (value: number): number => Math.round(value * 1e9) / 1e9 + 0;

/** The picture that a motif consists of, where it is one picture and nothing else. */
export function lonePicture(content: MotifContent): PicturePaint | null {
  if (content.kind !== 'drawing') return null;
  const [only, more] = content.elements;
  return (!more && only?.picture) || null;
}

import { IDENTITY, invert, multiply, translation, type Affine } from '../geom/affine';
import { formatPath, transformPath } from '../geom/path';
import { nearly } from '../num/tolerance';
import { type Box, boxesMeet, boxOfPoints, grow, moveBox } from '../geom/box';
import type { Point } from '../geom/point';
import { cellCorners } from '../lattice/cell';
import { offsetsMeeting } from '../lattice/meet';
import { effectsReach } from '../scene/effects';
import { endlessOver } from '../scene/endless';
import { elementBox, type Element } from '../scene/motif';
import { inkBox } from '../scene/piece';
import { underlayLines, underlayPictures } from '../scene/underlay';
import { piecesOver, type Piece, type UnitScene } from '../scene/unit';
import { effectsFilter } from './effects';
import { colourOf } from '../colour/slots';
import { paintMarkup, pictureMarkup, type Colours } from './paint';
import { contentId, matrixText, num } from './print';

export type { Colours };

/** Device pixels that the underlay of abutting edges is wide: the anti-aliasing of an edge reaches 0.71 px to each side. */
export const UNDERLAY_PIXELS = 2.5;

/** One element, its slots turned into colours: a <path>, or a picture inside the path, with its clip and gradient before it. */
export function elementMarkup(element: Element, colours: Colours): string {
  const drawing = element.picture ? pictureMarkup(element.picture, colours) : pathMarkup(element, colours);
  const opacity = element.picture && element.opacity < 1 ? ` opacity="${num(element.opacity)}"` : '';
  if (!element.clip) return opacity ? `<g${opacity}>${drawing}</g>` : drawing;
  const rule = element.clip.rule === 'evenodd' ? ' clip-rule="evenodd"' : '';
  const path = `<path d="${formatPath(element.clip.path)}"${rule}/>`;
  const id = contentId('k', path);
  return `<clipPath id="${id}">${path}</clipPath><g clip-path="url(#${id})"${opacity}>${drawing}</g>`;
}

function pathMarkup(element: Element, colours: Colours): string {
  const fill = paintMarkup(element.fill, colours);
  const rule = element.fillRule === 'evenodd' ? ' fill-rule="evenodd"' : '';
  const opacity = element.opacity < 1 ? ` ${opacityName(element)}="${num(element.opacity)}"` : '';
  return `${fill.defs}<path d="${element.d}" fill="${fill.value}"${rule}${strokeMarkup(element, colours)}${opacity}/>`;
}

/** One paint alone needs no layer of its own to be see-through, which renderers draw much faster. */
function opacityName({ fill, stroke }: Element): string {
  if (fill !== null && stroke) return 'opacity';
  return stroke ? 'stroke-opacity' : 'fill-opacity';
}

function strokeMarkup(element: Element, colours: Colours): string {
  const { stroke } = element;
  if (!stroke) return '';
  const parts = [
    ` stroke="${colourOf(colours, stroke.slot)}" stroke-width="${num(stroke.width)}"`,
    stroke.cap === 'butt' ? '' : ` stroke-linecap="${stroke.cap}"`,
    stroke.join === 'miter'
      ? ` stroke-miterlimit="${num(stroke.miterLimit)}"`
      : ` stroke-linejoin="${stroke.join}"`,
    stroke.dashes.length > 0 ? ` stroke-dasharray="${stroke.dashes.map(num).join(' ')}"` : '',
    stroke.dashOffset ? ` stroke-dashoffset="${num(stroke.dashOffset)}"` : '',
  ];
  return parts.join('');
}

/**
 * A piece moved by a lattice offset. Of `within`, elements that lie wholly outside it are left out: a renderer that makes
 * a layer for a clip or an opacity cannot bear one far outside its picture. Where its matrix turns and scales alike, the coordinates are written through it,
 * which browsers draw much faster than a group with a transform; a piece that is stretched unevenly keeps the group,
 * since its strokes are stretched too.
 */
export function pieceMarkup(piece: Piece, offset: Point, colours: Colours, within?: Box): string {
  const matrix = multiply(translation(offset.x, offset.y), piece.matrix);
  const drawing = drawnThrough(seenElements(piece, matrix, within), matrix, colours);
  if (drawing === '') return '';
  return throughWindow(piece, offset, withEffects(piece, offset, drawing, colours));
}

function withEffects(piece: Piece, offset: Point, drawing: string, colours: Colours): string {
  const opacity = piece.opacity < 1 ? ` opacity="${num(piece.opacity)}"` : '';
  const ink = piece.effects && inkBox(piece);
  if (piece.effects && ink) {
    const filter = effectsFilter(piece.effects, moveBox(ink, offset), colours);
    return `${filter.markup}<g filter="url(#${filter.id})"${opacity}>${drawing}</g>`;
  }
  return opacity ? `<g${opacity}>${drawing}</g>` : drawing;
}

function throughWindow({ window }: Piece, offset: Point, drawing: string): string {
  if (!window) return drawing;
  const path = `<path d="${formatPath(transformPath(translation(offset.x, offset.y), window))}"/>`;
  const id = contentId('k', path);
  return `<clipPath id="${id}">${path}</clipPath><g clip-path="url(#${id})">${drawing}</g>`;
}

/** The elements of a piece that meet a box, as far as its shadows reach. */
function seenElements(
  { elements, effects }: Piece,
  matrix: Affine,
  within: Box | undefined,
): readonly Element[] {
  if (!within || elements.length === 1) return elements;
  const seen = effects ? grow(within, effectsReach(effects)) : within;
  return elements.filter((element) => {
    const box = elementBox(element, matrix);
    return box !== null && boxesMeet(box, seen);
  });
}

function drawnThrough(elements: readonly Element[], matrix: Affine, colours: Colours): string {
  const scale = evenScale(matrix);
  if (scale === null && elements.some((element) => element.stroke)) {
    const inner = elements.map((element) => elementMarkup(element, colours)).join('');
    return `<g transform="${matrixText(matrix)}">${inner}</g>`;
  }
  return elements
    .map((element) => elementMarkup(throughMatrix(element, matrix, scale ?? 1), colours))
    .join('');
}

function throughMatrix(element: Element, matrix: Affine, scale: number): Element {
  const stroke = element.stroke && {
    ...element.stroke,
    width: element.stroke.width * scale,
    dashes: element.stroke.dashes.map((dash) => dash * scale),
    ...(element.stroke.dashOffset ? { dashOffset: element.stroke.dashOffset * scale } : {}),
  };
  const { fill, picture, clip } = element;
  const path = transformPath(matrix, element.path);
  return {
    ...element,
    path,
    d: formatPath(path),
    stroke,
    fill:
      fill !== null && typeof fill === 'object' ? { ...fill, matrix: multiply(matrix, fill.matrix) } : fill,
    picture: picture && { ...picture, matrix: multiply(matrix, picture.matrix) },
    clip: clip && { ...clip, path: transformPath(matrix, clip.path) },
  };
}

/** The endless strokes of a pattern over a region of its plane, each row in one piece. */
export function endlessMarkup(scene: UnitScene, region: readonly Point[], colours: Colours): string {
  if (scene.endless.length === 0) return '';
  return endlessOver(scene.endless, scene.lattice, region)
    .map(({ element, path }) => pathMarkup({ ...element, path, d: formatPath(path) }, colours))
    .join('');
}

/** The factor of a matrix that scales alike in all directions, or `null` where it does not. */
function evenScale(m: Affine): number | null {
  const across = Math.hypot(m.a, m.b);
  const down = Math.hypot(m.c, m.d);
  return nearly(across, down) && nearly(m.a * m.c + m.b * m.d, 0) ? across : null;
}

/** The pieces of one unit in stack order, nothing wrapped. */
export function unitMarkup(scene: UnitScene, colours: Colours): string {
  return scene.pieces.map((piece) => pieceMarkup(piece, { x: 0, y: 0 }, colours)).join('');
}

/** The lines under abutting pieces at the given lattice offsets; `width` in px of pattern space. */
export function abutmentMarkup(
  scene: UnitScene,
  colours: Colours,
  width: number,
  offsets: readonly Point[],
): string {
  if (offsets.length === 0) return '';
  return lineMarkup(scene, colours, width, offsets) + pictureUnderlay(scene, colours, width, offsets);
}

const pictureUnderlay = (
  scene: UnitScene,
  colours: Colours,
  width: number,
  offsets: readonly Point[],
): string =>
  underlayPictures(scene, width, offsets)
    .map((picture) => pictureMarkup(picture, colours))
    .join('');

function lineMarkup(scene: UnitScene, colours: Colours, width: number, offsets: readonly Point[]): string {
  return underlayLines(scene, width, offsets)
    .map(({ paint, wide, lines }) => {
      const d = lines
        .map(({ from, to }) => `M${num(from.x)} ${num(from.y)}L${num(to.x)} ${num(to.y)}`)
        .join('');
      return `<path d="${d}" fill="none" stroke="${colourOf(colours, paint)}" stroke-width="${num(wide)}"/>`;
    })
    .join('');
}

/**
 * The drawing of a block of pattern cells, one by default: each piece at each offset whose box meets the cell, in overlap order, with the
 * underlay below. For a skewed cell the drawing is unskewed first, so that it comes out straight on the plane.
 */
export function cellMarkup(
  scene: UnitScene,
  colours: Colours,
  underlay: number,
  columns = 1,
  rows = 1,
): string {
  const corners = cellCorners(scene.cell, columns, rows);
  const laid = piecesOver(scene, corners);
  const within = scene.layered ? regionBox(corners, underlay) : undefined;
  const offsets = scene.artBox ? offsetsMeeting(scene.lattice, grow(scene.artBox, underlay), corners) : [];
  const drawing =
    endlessMarkup(scene, corners, colours) +
    abutmentMarkup(scene, colours, underlay, offsets) +
    laid.map(({ piece, offset }) => pieceMarkup(piece, offset, colours, within)).join('');
  return unskewed(scene, drawing);
}

/** What is drawn on the plane, within the cell that it is cut from. */
export function unskewed({ cell }: UnitScene, drawing: string): string {
  const inverse = cell.matrix === IDENTITY ? null : invert(cell.matrix);
  return inverse ? `<g transform="${matrixText(inverse)}">${drawing}</g>` : drawing;
}

/** The box round a region, and a little more. */
export function regionBox(region: readonly Point[], margin: number): Box | undefined {
  const box = boxOfPoints(region);
  return box ? grow(box, margin + 1e-6) : undefined;
}

/**
 * The underlay's width in pattern px for a drawing enlarged by `scale`: two and a half device pixels or more,
 * which covers the anti-aliasing of both edges, in powers of two so that fills of similar scale can share one base pattern.
 */
export function underlayWidth(scale: number): number {
  return UNDERLAY_PIXELS / 2 ** Math.floor(Math.log2(Math.max(scale, 1e-6)) + 1e-6);
}

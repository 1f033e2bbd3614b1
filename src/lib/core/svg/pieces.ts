import type { Hex } from '../colour/parse';
import { IDENTITY, invert, multiply, translation, type Affine } from '../geom/affine';
import { formatPath, transformPath } from '../geom/path';
import { nearly } from '../num/tolerance';
import { grow } from '../geom/box';
import type { Point } from '../geom/point';
import type { Abutment } from '../lattice/abut';
import { cellCorners } from '../lattice/cell';
import { offsetsMeeting } from '../lattice/meet';
import type { Element } from '../scene/motif';
import { piecesOver, type Piece, type UnitScene } from '../scene/unit';
import { matrixText, num } from './print';

export type Colours = Readonly<Record<string, Hex>>;

/** Device pixels that the underlay of abutting edges is wide: the anti-aliasing of an edge reaches 0.71 px to each side. */
export const UNDERLAY_PIXELS = 2.5;

const NO_COLOUR = '#000000';

/** One element as a <path>, its slots turned into colours. */
export function elementMarkup(element: Element, colours: Colours): string {
  const fill = element.fill === null ? 'none' : (colours[element.fill] ?? NO_COLOUR);
  const rule = element.fillRule === 'evenodd' ? ' fill-rule="evenodd"' : '';
  const opacity = element.opacity < 1 ? ` opacity="${num(element.opacity)}"` : '';
  return `<path d="${element.d}" fill="${fill}"${rule}${strokeMarkup(element, colours)}${opacity}/>`;
}

function strokeMarkup(element: Element, colours: Colours): string {
  const { stroke } = element;
  if (!stroke) return '';
  const parts = [
    ` stroke="${colours[stroke.slot] ?? NO_COLOUR}" stroke-width="${num(stroke.width)}"`,
    stroke.cap === 'butt' ? '' : ` stroke-linecap="${stroke.cap}"`,
    stroke.join === 'miter'
      ? ` stroke-miterlimit="${num(stroke.miterLimit)}"`
      : ` stroke-linejoin="${stroke.join}"`,
    stroke.dashes.length > 0 ? ` stroke-dasharray="${stroke.dashes.map(num).join(' ')}"` : '',
  ];
  return parts.join('');
}

/**
 * A piece moved by a lattice offset. Where its matrix turns and scales alike, the coordinates are written through it,
 * which browsers draw much faster than a group with a transform; a piece that is stretched unevenly keeps the group,
 * since its strokes are stretched too.
 */
export function pieceMarkup(piece: Piece, offset: Point, colours: Colours): string {
  const matrix = multiply(translation(offset.x, offset.y), piece.matrix);
  const scale = evenScale(matrix);
  if (scale === null && piece.elements.some((element) => element.stroke)) {
    const inner = piece.elements.map((element) => elementMarkup(element, colours)).join('');
    return `<g transform="${matrixText(matrix)}">${inner}</g>`;
  }
  return piece.elements
    .map((element) => elementMarkup(throughMatrix(element, matrix, scale ?? 1), colours))
    .join('');
}

function throughMatrix(element: Element, matrix: Affine, scale: number): Element {
  const stroke = element.stroke && {
    ...element.stroke,
    width: element.stroke.width * scale,
    dashes: element.stroke.dashes.map((dash) => dash * scale),
  };
  const path = transformPath(matrix, element.path);
  return { ...element, path, d: formatPath(path), stroke };
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
  if (scene.abutments.length === 0 || offsets.length === 0) return '';
  const byPaint = new Map<string, string[]>();
  for (const abutment of scene.abutments) {
    const { paint } = abutment;
    const { from, to } = runOn(abutment, width);
    const lines = byPaint.get(paint) ?? [];
    byPaint.set(paint, lines);
    for (const { x, y } of offsets)
      lines.push(`M${num(from.x + x)} ${num(from.y + y)}L${num(to.x + x)} ${num(to.y + y)}`);
  }
  return [...byPaint]
    .map(
      ([paint, lines]) =>
        `<path d="${lines.join('')}" fill="none" stroke="${colours[paint] ?? NO_COLOUR}" stroke-width="${num(width)}"/>`,
    )
    .join('');
}

/**
 * An abutment made longer by `by` at the ends where others meet it, so that no gap is left at the joint, and shorter
 * by a quarter as much at its free ends, so that nothing peeps out beside the pieces.
 */
function runOn({ from, to, joinedFrom, joinedTo }: Abutment, by: number): { from: Point; to: Point } {
  const size = Math.hypot(to.x - from.x, to.y - from.y);
  const along = { x: (to.x - from.x) / size, y: (to.y - from.y) / size };
  const inset = Math.min(by / 4, size / 4);
  const start = joinedFrom ? -by : inset;
  const end = joinedTo ? by : -inset;
  return {
    from: { x: from.x + along.x * start, y: from.y + along.y * start },
    to: { x: to.x + along.x * end, y: to.y + along.y * end },
  };
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
  const offsets = scene.artBox ? offsetsMeeting(scene.lattice, grow(scene.artBox, underlay), corners) : [];
  const drawing =
    abutmentMarkup(scene, colours, underlay, offsets) +
    laid.map(({ piece, offset }) => pieceMarkup(piece, offset, colours)).join('');
  const inverse = scene.cell.matrix === IDENTITY ? null : invert(scene.cell.matrix);
  return inverse ? `<g transform="${matrixText(inverse)}">${drawing}</g>` : drawing;
}

/**
 * The underlay's width in pattern px for a drawing enlarged by `scale`: two and a half device pixels or more,
 * which covers the anti-aliasing of both edges, in powers of two so that fills of similar scale can share one base pattern.
 */
export function underlayWidth(scale: number): number {
  return UNDERLAY_PIXELS / 2 ** Math.floor(Math.log2(Math.max(scale, 1e-6)) + 1e-6);
}

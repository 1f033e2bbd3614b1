import { type Box } from '$lib/core/geom/box';
import type { Path } from '$lib/core/geom/path';
import { type Point } from '$lib/core/geom/point';
import { snapAlong } from '$lib/core/geom/snap';
import { elementsBox } from '$lib/core/scene/drawing';
import type { View } from '../../layout/view.svelte';
import { NO_SNAP, type SnapLines } from '../piece-drags';
import type { Board } from './board.svelte';
import type { Pen } from '../../state/pen.svelte';

/** What a drag on the board shows while it lasts. */
export type BoardPreview = { path: Path | null; marquee: Box | null; snapped: SnapLines };

export const NO_PREVIEW: BoardPreview = { path: null, marquee: null, snapped: NO_SNAP };

export type BoardContext = {
  board: Board;
  view: View;
  pen: Pen;
  preview: (shown: BoardPreview) => void;
  ontext: (at: Point) => void;
};

/** How near a line draws a point to itself, px of the window. */
export const SNAP_REACH = 6;

/** What goes on from a press on the board until it ends. */
export type Handler = { move: (at: Point, event: PointerEvent) => void; end: (moved: boolean) => void };

export type Lines = { xs: number[]; ys: number[] };

/** Lines that points on the board snap to: the motif's middle, guides, and edges and middles of the elements left alone. */
export function linesOf(board: Board, without: ReadonlySet<number>): Lines {
  const xs = [0];
  const ys = [0];
  for (const { axis, at } of board.guides) (axis === 'x' ? xs : ys).push(at);
  board.elements.forEach((element, index) => {
    const box = without.has(index) ? null : elementsBox([element]);
    if (!box) return;
    xs.push(box.x, box.x + box.width / 2, box.x + box.width);
    ys.push(box.y, box.y + box.height / 2, box.y + box.height);
  });
  return { xs, ys };
}

/** A point brought onto lines or the grid; Alt lets go. */
export function snapPoint(
  { board, view }: Pick<BoardContext, 'board' | 'view'>,
  at: Point,
  off: boolean,
  lines = linesOf(board, new Set()),
): { at: Point; snapped: SnapLines } {
  const { aids } = board.editor.composed;
  if (off || !aids.snap) return { at, snapped: NO_SNAP };
  const reach = SNAP_REACH / view.zoom;
  const grid = aids.showGrid ? aids.grid : null;
  const x = snapAlong([at.x], grid === null ? lines.xs : guidesOnly(board, 'x'), reach, at.x, grid);
  const y = snapAlong([at.y], grid === null ? lines.ys : guidesOnly(board, 'y'), reach, at.y, grid);
  return {
    at: { x: at.x + (x?.shift ?? 0), y: at.y + (y?.shift ?? 0) },
    snapped: { x: x?.line ?? null, y: y?.line ?? null },
  };
}

/** With a grid, drawn points are grid points: only guides go before it. */
const guidesOnly = (board: Board, axis: 'x' | 'y'): number[] =>
  board.guides.flatMap((guide) => (guide.axis === axis ? [guide.at] : []));

/** Changes `by` so that the moved box's edges or middle lie on lines, or its corner on the grid. */
export function snapBox(
  { board, view }: Pick<BoardContext, 'board' | 'view'>,
  box: Box,
  by: Point,
  off: boolean,
  lines: Lines,
): SnapLines {
  const { aids } = board.editor.composed;
  if (off || !aids.snap) return NO_SNAP;
  const reach = SNAP_REACH / view.zoom;
  const grid = aids.showGrid ? aids.grid : null;
  const [x, y] = [box.x + by.x, box.y + by.y];
  const across = snapAlong([x, x + box.width / 2, x + box.width], lines.xs, reach / 2, x, grid);
  const down = snapAlong([y, y + box.height / 2, y + box.height], lines.ys, reach / 2, y, grid);
  by.x += across?.shift ?? 0;
  by.y += down?.shift ?? 0;
  return { x: across?.line ?? null, y: down?.line ?? null };
}

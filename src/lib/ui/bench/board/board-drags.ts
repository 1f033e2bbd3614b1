import { about, chain, rotation, scaling, translation } from '$lib/core/geom/affine';
import { boxCentre, boxOfCorners, boxesMeet, type Box } from '$lib/core/geom/box';
import { fitFreehand } from '$lib/core/geom/freehand';
import { moveHandle, moveNode, nodesOf, pathOfNodes, type NodeRow, putNode } from '$lib/core/geom/nodes';
import type { Path } from '$lib/core/geom/path';
import { subtract, type Point } from '$lib/core/geom/point';
import type { ShapeForm } from '$lib/core/geom/shapes';
import { snapAlong, snapAngle } from '$lib/core/geom/snap';
import { elementsBox, pathOf, pathText } from '$lib/core/scene/drawing';
import { dragging } from '../../layout/dragging';
import type { View } from '../../layout/view.svelte';
import { elementAt } from '../hit';
import { NO_SNAP, type SnapLines } from '../piece-drags';
import type { Board, BoardTool } from './board.svelte';
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

const SNAP_REACH = 6;
const HIT_REACH = 4;

/** Forms that the tools of that name draw. */
export const FORM_OF: Partial<Record<BoardTool, ShapeForm>> = {
  rectangle: { kind: 'rectangle', radius: 0 },
  ellipse: { kind: 'ellipse' },
  polygon: { kind: 'polygon', sides: 6 },
  star: { kind: 'star', points: 5, inner: 0.5 },
};

type Lines = { xs: number[]; ys: number[] };

/** Lines that points on the board snap to: the motif's middle, guides, and edges and middles of the elements left alone. */
function linesOf(board: Board, without: ReadonlySet<number>): Lines {
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

/** The drag on the board's ground and elements, by the tool that is taken. */
export function boardDrag(context: BoardContext): (node: SVGElement) => () => void {
  const { board, view, pen, preview } = context;
  let current: Handler | null = null;
  return dragging({
    view,
    start: (at, event) => {
      current = handlerFor(context, at, event);
      return current ? undefined : false;
    },
    move: (at, event) => current?.move(at, event),
    end: (moved) => {
      current?.end(moved);
      preview(NO_PREVIEW);
    },
    cancel: () => {
      preview(NO_PREVIEW);
      pen.cancel();
      board.editor.history.cancel();
    },
  });
}

type Handler = { move: (at: Point, event: PointerEvent) => void; end: (moved: boolean) => void };

function handlerFor(context: BoardContext, at: Point, event: PointerEvent): Handler | null {
  const { board, ontext } = context;
  const snapped = snapPoint(context, at, event.altKey).at;
  const form = FORM_OF[board.tool];
  if (form) return drawForm(context, form, snapped);
  switch (board.tool) {
    case 'line':
      return drawLine(context, snapped);
    case 'path':
      return drawPath(context, event.shiftKey ? context.pen.inSteps(snapped, 15) : snapped);
    case 'freehand':
      return drawFreehand(context, at);
    case 'text':
      return {
        move: () => undefined,
        end: () => ontext(snapped),
      };
    case 'points':
      return pickForPoints(context, at);
    default:
      return chooseAndMove(context, at, event);
  }
}

function drawForm({ board, view, preview }: BoardContext, form: ShapeForm, from: Point): Handler {
  let box: Box | null = null;
  return {
    move: (at, event) => {
      const { at: to, snapped } = snapPoint({ board, view }, at, event.altKey);
      if (event.shiftKey) {
        const side = Math.max(Math.abs(to.x - from.x), Math.abs(to.y - from.y));
        to.x = from.x + side * (Math.sign(to.x - from.x) || 1);
        to.y = from.y + side * (Math.sign(to.y - from.y) || 1);
      }
      box = boxOfCorners(from, to);
      preview({ path: rectangle(box), marquee: null, snapped });
    },
    end: () => {
      if (!box || box.width <= 0 || box.height <= 0) return;
      board.addForm(form, box);
      board.tool = 'choose';
    },
  };
}

function drawLine({ board, view, preview }: BoardContext, from: Point): Handler {
  let to = from;
  return {
    move: (at, event) => {
      const found = snapPoint({ board, view }, at, event.altKey);
      to = event.shiftKey ? inSteps(from, found.at) : found.at;
      preview({ path: lineOf(from, to), marquee: null, snapped: found.snapped });
    },
    end: () => {
      if (to.x !== from.x || to.y !== from.y) board.addLine(lineOf(from, to));
    },
  };
}

/** A press sets a point; a drag from it pulls its handles. A press on the first point closes the path. */
function drawPath({ board, view, pen }: BoardContext, at: Point): Handler {
  const closes = pen.closes(at, 8 / view.zoom);
  if (closes) {
    return {
      move: () => undefined,
      end: () => {
        const path = pen.finish(true);
        if (path) board.addLine(path, true);
      },
    };
  }
  pen.add(at);
  return {
    move: (to, event) => {
      const { at: handle } = snapPoint({ board, view }, to, event.altKey);
      pen.pull(event.shiftKey ? inSteps(at, handle) : handle);
    },
    end: () => undefined,
  };
}

function drawFreehand({ board, view, preview }: BoardContext, from: Point): Handler {
  const points = [from];
  return {
    move: (at) => {
      const last = points[points.length - 1] ?? from;
      if (Math.hypot(at.x - last.x, at.y - last.y) * view.zoom < 2) return;
      points.push(at);
      preview({
        path: points.map((to, index) => ({ op: index === 0 ? ('M' as const) : ('L' as const), to })),
        marquee: null,
        snapped: NO_SNAP,
      });
    },
    end: () => {
      if (points.length > 1) board.addLine(fitFreehand(points, 2.5 / view.zoom));
    },
  };
}

function chooseAndMove({ board, view, preview }: BoardContext, from: Point, event: PointerEvent): Handler {
  const hit = elementAt(board.elements, from, HIT_REACH / view.zoom);
  if (hit === null) {
    const before = event.shiftKey ? board.selected : [];
    if (!event.shiftKey) board.select([]);
    let marquee: Box | null = null;
    return {
      move: (at) => {
        marquee = boxOfCorners(from, at);
        preview({ path: null, marquee, snapped: NO_SNAP });
      },
      end: () => {
        const area = marquee;
        if (!area) return;
        const inside = [...board.elements.keys()].filter((index) => {
          const element = board.elements[index];
          const box = element && elementsBox([element]);
          return box && boxesMeet(box, area);
        });
        board.select([...before, ...inside]);
      },
    };
  }
  if (event.shiftKey) board.toggle(hit);
  else if (!board.selected.includes(hit)) board.select([hit]);
  const box = board.box;
  const lines = linesOf(board, new Set(board.selected));
  let started = false;
  return {
    move: (at, moveEvent) => {
      const by = subtract(at, from);
      if (!started && Math.hypot(by.x, by.y) * view.zoom < 3) return;
      started = true;
      if (moveEvent.shiftKey) {
        if (Math.abs(by.x) > Math.abs(by.y)) by.y = 0;
        else by.x = 0;
      }
      const snapped = box ? snapBox({ board, view }, box, by, moveEvent.altKey, lines) : NO_SNAP;
      preview({ path: null, marquee: null, snapped });
      board.transform(translation(by.x, by.y), true);
    },
    end: () => board.editor.history.commit(),
  };
}

/** Changes `by` so that the moved box's edges or middle lie on lines, or its corner on the grid. */
function snapBox(
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

function pickForPoints({ board, view }: BoardContext, at: Point): Handler {
  const hit = elementAt(board.elements, at, HIT_REACH / view.zoom);
  if (hit !== null && !board.selected.includes(hit)) board.select([hit]);
  return { move: () => undefined, end: () => undefined };
}

/** A drag of one of the eight handles of the chosen elements: the opposite side stays. Shift keeps the ratio. */
export function boardSizing(
  context: BoardContext,
  handle: { across: -1 | 0 | 1; down: -1 | 0 | 1 },
): (node: SVGElement) => () => void {
  const { board, view, preview } = context;
  let box: Box | null = null;
  return dragging({
    view,
    start: () => {
      box = board.box;
      return box ? undefined : false;
    },
    move: (at, event) => {
      if (!box) return;
      const { at: to, snapped } = snapPoint(context, at, event.altKey);
      const fixed = {
        x: handle.across < 0 ? box.x + box.width : box.x,
        y: handle.down < 0 ? box.y + box.height : box.y,
      };
      const part = (side: number, sign: number, place: number, from: number): number =>
        sign === 0 || side < 1e-6 ? 1 : Math.max(1e-3, ((place - from) * sign) / side);
      let across = part(box.width, handle.across, to.x, fixed.x);
      let down = part(box.height, handle.down, to.y, fixed.y);
      if (event.shiftKey) {
        if (handle.across === 0) across = down;
        else if (handle.down === 0) down = across;
        else across = down = Math.max(across, down);
      }
      preview({ ...NO_PREVIEW, snapped });
      board.transform(about(fixed, scaling(across, down)), true);
    },
    end: () => {
      preview(NO_PREVIEW);
      board.editor.history.commit();
    },
    cancel: () => {
      preview(NO_PREVIEW);
      board.editor.history.cancel();
    },
  });
}

export function boardTurning({ board, view }: BoardContext): (node: SVGElement) => () => void {
  let centre: Point = { x: 0, y: 0 };
  let from = 0;
  const direction = (at: Point): number => (Math.atan2(at.y - centre.y, at.x - centre.x) * 180) / Math.PI;
  return dragging({
    view,
    start: (at) => {
      if (!board.box) return false;
      centre = boxCentre(board.box);
      from = direction(at);
    },
    move: (at, event) => {
      const turn = direction(at) - from;
      board.transform(about(centre, rotation(event.shiftKey ? snapAngle(turn, 15) : turn)), true);
    },
    end: () => board.editor.history.commit(),
    cancel: () => board.editor.history.cancel(),
  });
}

/** A drag of a path's point or of one of its handles. Alt on a handle breaks the smooth join. */
export function nodeDrag(
  context: BoardContext,
  row: number,
  index: number,
  what: 'at' | 'before' | 'after',
): (node: SVGElement) => () => void {
  const { board, view, preview } = context;
  let rows: NodeRow[] = [];
  return dragging({
    view,
    start: () => {
      const element = board.single;
      if (!element) return false;
      rows = nodesOf(pathOf(element));
    },
    move: (at, event) => {
      const held = rows[row]?.nodes[index];
      if (!held) return;
      const { at: to, snapped } = snapPoint(context, at, event.altKey && what === 'at');
      const node = what === 'at' ? moveNode(held, to) : moveHandle(held, what, to, !event.altKey);
      preview({ ...NO_PREVIEW, snapped });
      setRows(board, putNode(rows, row, index, node), true);
    },
    end: () => {
      preview(NO_PREVIEW);
      board.editor.history.commit();
    },
    cancel: () => {
      preview(NO_PREVIEW);
      board.editor.history.cancel();
    },
  });
}

/** Gives the single chosen element other points; what it was made from no longer says what it is. */
export function setRows(board: Board, rows: readonly NodeRow[], live = false): void {
  board.change((element) => {
    const { source: _source, ...rest } = element;
    return { ...rest, d: pathText(pathOfNodes(rows)) };
  }, live);
}

function inSteps(from: Point, to: Point): Point {
  const size = Math.hypot(to.x - from.x, to.y - from.y);
  const angle = snapAngle((Math.atan2(to.y - from.y, to.x - from.x) * 180) / Math.PI, 15);
  const turned = chain(rotation(angle));
  return { x: from.x + turned.a * size, y: from.y + turned.b * size };
}

const lineOf = (from: Point, to: Point): Path => [
  { op: 'M', to: from },
  { op: 'L', to },
];

function rectangle({ x, y, width, height }: Box): Path {
  return [
    { op: 'M', to: { x, y } },
    { op: 'L', to: { x: x + width, y } },
    { op: 'L', to: { x: x + width, y: y + height } },
    { op: 'L', to: { x, y: y + height } },
    { op: 'Z' },
  ];
}

import { about, rotation, scaling, translation } from '$lib/core/geom/affine';
import { boxCentre, boxOfCorners, boxesMeet, type Box } from '$lib/core/geom/box';
import { moveHandle, moveNode, nodesOf, pathOfNodes, type NodeRow, putNode } from '$lib/core/geom/nodes';
import { subtract, type Point } from '$lib/core/geom/point';
import type { ShapeForm } from '$lib/core/geom/shapes';
import { snapAngle } from '$lib/core/geom/snap';
import { elementsBox, pathOf, pathText } from '$lib/core/scene/drawing';
import { dragging } from '../../layout/dragging';
import { elementAt } from '../hit';
import { NO_SNAP } from '../piece-drags';
import type { Board, BoardTool } from './board.svelte';
import { drawForm, drawFreehand, drawLine, drawPath } from './board-drawing';
import { NO_PREVIEW, linesOf, snapBox, snapPoint, type BoardContext, type Handler } from './board-snap';

const HIT_REACH = 4;

/** Forms that the tools of that name draw. */
export const FORM_OF: Partial<Record<BoardTool, ShapeForm>> = {
  rectangle: { kind: 'rectangle', radius: 0 },
  ellipse: { kind: 'ellipse' },
  polygon: { kind: 'polygon', sides: 6 },
  star: { kind: 'star', points: 5, inner: 0.5 },
};

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
  let off: Point;
  return dragging({
    view,
    start: (at) => {
      box = board.box;
      if (!box) return false;
      off = {
        x: at.x - box.x - (box.width * (handle.across + 1)) / 2,
        y: at.y - box.y - (box.height * (handle.down + 1)) / 2,
      };
      return undefined;
    },
    move: (at, event) => {
      if (!box) return;
      const { at: to, snapped } = snapPoint(context, { x: at.x - off.x, y: at.y - off.y }, event.altKey);
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

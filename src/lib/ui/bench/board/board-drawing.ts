import { pointInSteps } from '$lib/core/geom/snap';
import { boxOfCorners, type Box } from '$lib/core/geom/box';
import { fitFreehand } from '$lib/core/geom/freehand';
import type { Path } from '$lib/core/geom/path';
import { type Point } from '$lib/core/geom/point';
import type { ShapeForm } from '$lib/core/geom/shapes';
import type { Pen } from '../../state/pen.svelte';
import { NO_SNAP } from '../piece-drags';
import type { Board } from './board.svelte';
import { snapPoint, type BoardContext, type Handler } from './board-snap';

/** A form drawn from corner to corner; Shift makes it even, Alt draws from the middle. */
export function drawForm({ board, view, preview }: BoardContext, form: ShapeForm, from: Point): Handler {
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
      board.hand.used();
    },
  };
}

/** A straight line; Shift for steps of 15°. */
export function drawLine({ board, view, preview }: BoardContext, from: Point): Handler {
  let to = from;
  return {
    move: (at, event) => {
      const found = snapPoint({ board, view }, at, event.altKey);
      to = event.shiftKey ? pointInSteps(from, found.at, 15) : found.at;
      preview({ path: lineOf(from, to), marquee: null, snapped: found.snapped });
    },
    end: () => {
      if (to.x === from.x && to.y === from.y) return;
      board.addLine(lineOf(from, to));
      board.hand.used();
    },
  };
}

/** Ends the path that is set point by point and keeps it, closed or open. */
export function finishPath(board: Board, pen: Pen, closed = false): void {
  const path = pen.finish(closed);
  if (!path) return;
  board.addLine(path, closed);
  board.hand.used();
}

/** A press sets one more point of a path; a drag from it bends it. A press on the first point closes the path. */
export function drawPath({ board, view, pen }: BoardContext, at: Point): Handler {
  const closes = pen.closes(at, 8 / view.zoom);
  if (closes) {
    return {
      move: () => undefined,
      end: () => {
        finishPath(board, pen, true);
      },
    };
  }
  pen.add(at);
  return {
    move: (to, event) => {
      const { at: handle } = snapPoint({ board, view }, to, event.altKey);
      pen.pull(event.shiftKey ? pointInSteps(at, handle, 15) : handle);
    },
    end: () => undefined,
  };
}

/** A line by hand, made smooth. */
export function drawFreehand({ board, view, preview }: BoardContext, from: Point): Handler {
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
      if (points.length < 2) return;
      board.addLine(fitFreehand(points, 2.5 / view.zoom));
      board.hand.used();
    },
  };
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

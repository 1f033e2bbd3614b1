import type { Box } from '../geom/box';
import { parsePath, pathBox, transformPath, type Path } from '../geom/path';
import { translation } from '../geom/affine';
import type { Point } from '../geom/point';
import { polygonPath } from '../geom/shapes';
import type { Space } from './space';

/**
 * A part of a cut sheet: its outline, mm from the sheet's upper left corner, and where each of its points lies on the
 * object; `null` for flaps, which lie inside. `cells` are parts of it so small that they are flat, or nearly.
 */
export type Panel = {
  name: string;
  outline: Path;
  at: ((point: Point) => Space) | null;
  cells: Point[][];
};

/**
 * A part of an object that nothing is printed on: its corners in space, clockwise as seen from outside. A floor lies within
 * the walls, a handle outside of them, all else is wall.
 */
export type Blank = { corners: Space[]; part: 'wall' | 'floor' | 'handle' };

/** The flat layout of what is printed on an object, mm: everything that is cut out of one sheet; and what else the object has. */
export type Sheet = { width: number; height: number; panels: Panel[]; blanks: Blank[] };

/** Cells of a round wall: so many about its axis. */
export const ROUND = 72;

/** Panels as a sheet: as large as they reach, from its corner on. */
export function sheetOf(panels: readonly Panel[], blanks: Blank[] = []): Sheet {
  const boxes = panels.map(({ outline }) => pathBox(outline)).filter((box): box is Box => box !== null);
  const left = Math.min(...boxes.map(({ x }) => x));
  const top = Math.min(...boxes.map(({ y }) => y));
  return {
    width: Math.max(...boxes.map(({ x, width }) => x + width)) - left,
    height: Math.max(...boxes.map(({ y, height }) => y + height)) - top,
    panels: panels.map((panel) => moved(panel, -left, -top)),
    blanks,
  };
}

function moved({ name, outline, at, cells }: Panel, x: number, y: number): Panel {
  return {
    name,
    outline: transformPath(translation(x, y), outline),
    at: at && ((point) => at({ x: point.x - x, y: point.y - y })),
    cells: cells.map((cell) => cell.map((point) => ({ x: point.x + x, y: point.y + y }))),
  };
}

/** An upright rectangle of a sheet; `at` takes mm from its own upper left corner. */
export function rectangle(
  name: string,
  { x, y, width, height }: Box,
  at: ((point: Point) => Space) | null,
): Panel {
  const corners = [
    { x, y },
    { x: x + width, y },
    { x: x + width, y: y + height },
    { x, y: y + height },
  ];
  return {
    name,
    outline: polygonPath(corners),
    at: at && ((point) => at({ x: point.x - x, y: point.y - y })),
    cells: [corners],
  };
}

/**
 * The wall of a round vessel whose diameter grows evenly from `bottom` to `top` over `height` (mm), or shrinks: a part of a
 * ring between two arcs (the development of a right circular cone: slant height L, radius R, angle 2πR ∕ L), a rectangle
 * where both are alike. The middle of the sheet is the front, its ends meet at the back.
 */
export function roundWall(name: string, top: number, bottom: number, height: number): Panel {
  if (Math.abs(top - bottom) < 1e-6 * Math.max(top, bottom)) return cylinderWall(name, top, height);
  const [wide, narrow] = [Math.max(top, bottom) / 2, Math.min(top, bottom) / 2];
  const slant = Math.hypot(height, wide - narrow);
  const outer = (slant * wide) / (wide - narrow);
  const inner = outer - slant;
  const angle = (2 * Math.PI * wide) / outer;
  // The wide end lies above; where it is the bottom, the sheet is turned over.
  const side = top > bottom ? 1 : -1;
  const on = (radius: number, turn: number): Point => ({
    x: radius * Math.sin(turn),
    y: -side * radius * Math.cos(turn),
  });
  const arc = (radius: number, from: number, to: number): string => {
    const end = on(radius, to);
    const large = Math.abs(to - from) > Math.PI ? 1 : 0;
    return `A${radius} ${radius} 0 ${large} ${to > from === side > 0 ? 1 : 0} ${end.x} ${end.y}`;
  };
  const [start, corner] = [on(outer, -angle / 2), on(inner, angle / 2)];
  const outline = parsePath(
    `M${start.x} ${start.y}${arc(outer, -angle / 2, angle / 2)}L${corner.x} ${corner.y}${arc(inner, angle / 2, -angle / 2)}Z`,
  );
  return {
    name,
    outline: outline.ok ? outline.path : [],
    at: ({ x, y }) => {
      const radius = Math.hypot(x, y);
      const turn = (Math.atan2(x, -side * y) * 2 * Math.PI) / angle;
      const share = (radius - inner) / slant;
      const own = narrow + share * (wide - narrow);
      return {
        x: own * Math.sin(turn),
        y: height * (side > 0 ? share : 1 - share),
        z: own * Math.cos(turn),
      };
    },
    cells: Array.from({ length: ROUND }, (_, index) => {
      const [from, to] = [index, index + 1].map((at) => angle * (at / ROUND - 0.5)) as [number, number];
      const [upper, lower] = side > 0 ? [outer, inner] : [inner, outer];
      return [on(upper, from), on(upper, to), on(lower, to), on(lower, from)];
    }),
  };
}

function cylinderWall(name: string, diameter: number, height: number): Panel {
  const width = Math.PI * diameter;
  const wall = rectangle(name, { x: 0, y: 0, width, height }, round(diameter / 2, width / 2, height));
  return { ...wall, cells: strips(width, height, ROUND) };
}

/** A rectangle bent round: `middle` is where its front is, mm from its left. */
export const round =
  (radius: number, middle: number, height: number) =>
  ({ x, y }: Point): Space => {
    const turn = (x - middle) / radius;
    return { x: radius * Math.sin(turn), y: height - y, z: radius * Math.cos(turn) };
  };

/** A rectangle in upright strips. */
export const strips = (width: number, height: number, count: number): Point[][] =>
  Array.from({ length: count }, (_, index) => {
    const [left, right] = [(width * index) / count, (width * (index + 1)) / count];
    return [
      { x: left, y: 0 },
      { x: right, y: 0 },
      { x: right, y: height },
      { x: left, y: height },
    ];
  });

/** A round wall from one radius and height to another, without print; `from` and `to` are shares of a turn from the front on. */
export const roundBlank = (
  lower: { radius: number; y: number },
  upper: { radius: number; y: number },
  from = 0,
  to = 1,
): Blank[] =>
  Array.from({ length: ROUND }, (_, index) => {
    const on = ({ radius, y }: typeof lower, share: number): Space => {
      const turn = 2 * Math.PI * (from + (to - from) * share);
      return { x: radius * Math.sin(turn), y, z: radius * Math.cos(turn) };
    };
    const [left, right] = [index / ROUND, (index + 1) / ROUND];
    const corners = [on(upper, left), on(upper, right), on(lower, right), on(lower, left)];
    return { corners, part: 'wall' };
  });

/** A round floor, seen from above. */
export const floorBlank = (radius: number, y: number): Blank => ({
  part: 'floor',
  corners: Array.from({ length: ROUND }, (_, index) => {
    const turn = (-2 * Math.PI * index) / ROUND;
    return { x: radius * Math.sin(turn), y, z: radius * Math.cos(turn) };
  }),
});

import { moveBox, type Box } from '../geom/box';
import { parsePath, pathBox, transformPath, type Path } from '../geom/path';
import { translation } from '../geom/affine';
import type { Point } from '../geom/point';
import { polygonPath } from '../geom/shapes';
import type { Size } from '../lattice/size';
import { ROUND, type Blank } from './blanks';
import type { Space } from './space';

/**
 * A part of a cut sheet: its outline, mm from the sheet's upper left corner, and where each of its points lies on the
 * object; `null` for flaps, which lie inside. `cells` are parts of it so small that they are flat, or nearly. `box` is the
 * outline where that is an upright rectangle.
 */
export type Panel = {
  name: string;
  outline: Path;
  box: Box | null;
  at: ((point: Point) => Space) | null;
  cells: Point[][];
};

/** The flat layout of what is printed on an object, mm: everything that is cut out of one sheet; and what else the object has. */
export type Sheet = { width: number; height: number; panels: Panel[]; blanks: Blank[] };

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

function moved({ name, outline, box, at, cells }: Panel, x: number, y: number): Panel {
  return {
    name,
    outline: transformPath(translation(x, y), outline),
    box: box && moveBox(box, { x, y }),
    at: at && ((point) => at({ x: point.x - x, y: point.y - y })),
    cells: cells.map((cell) => cell.map((point) => ({ x: point.x + x, y: point.y + y }))),
  };
}

/** An upright rectangle of a sheet; `at` takes mm from its own upper left corner. */
export function rectangle(name: string, box: Box, at: ((point: Point) => Space) | null): Panel {
  const { x, y, width, height } = box;
  const corners = [
    { x, y },
    { x: x + width, y },
    { x: x + width, y: y + height },
    { x, y: y + height },
  ];
  return {
    name,
    outline: polygonPath(corners),
    box,
    at: at && ((point) => at({ x: point.x - x, y: point.y - y })),
    cells: [corners],
  };
}

/** A rectangle bent round a cylinder, in upright strips; its middle is the front. */
export function bent(name: string, diameter: number, { width, height }: Size): Panel {
  const radius = diameter / 2;
  const strip = width / ROUND;
  return {
    ...rectangle(name, { x: 0, y: 0, width, height }, ({ x, y }) => {
      const turn = (x - width / 2) / radius;
      return { x: radius * Math.sin(turn), y: height - y, z: radius * Math.cos(turn) };
    }),
    cells: Array.from(
      { length: ROUND },
      (_, at) => rectangle('', { x: at * strip, y: 0, width: strip, height }, null).cells[0]!,
    ),
  };
}

/**
 * The wall of a round vessel whose diameter grows evenly from `bottom` to `top` over `height` (mm), or shrinks: a part of a
 * ring between two arcs (the development of a right circular cone: slant height L, radius R, angle 2πR ∕ L), a rectangle
 * where both are alike. The middle of the sheet is the front, its ends meet at the back.
 */
export function roundWall(name: string, top: number, bottom: number, height: number): Panel {
  if (Math.abs(top - bottom) < 1e-6 * Math.max(top, bottom))
    return bent(name, top, { width: Math.PI * top, height });
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
    box: null,
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

/** Every corner of an object, where it is in space. */
export const placesOf = ({ panels, blanks }: Sheet): Space[] => [
  ...blanks.flatMap(({ corners }) => corners),
  ...panels.flatMap(({ at, cells }) => (at ? cells.flatMap((cell) => cell.map((point) => at(point))) : [])),
];

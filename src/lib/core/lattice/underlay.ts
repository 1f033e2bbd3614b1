import type { Box } from '../geom/box';
import type { Point } from '../geom/point';
import { cellPlace, stretchesOf, type Edge, type Stretch } from './abut';
import type { Lattice } from './repeat';

/**
 * A line to draw under two pieces. `paint` is that of the piece that lies lower: what an edge of the upper one lets
 * through. `alike` where both have it. Drawn in the order of the list they hide each other's ends as they should.
 */
export type Abutment = {
  from: Point;
  to: Point;
  paint: string;
  alike: boolean;
  /** How far the line may run on at each end, px, under one that is drawn after it: 0 ends it there. */
  runFrom: number;
  runTo: number;
  /** How far it may reach to each side before it would peep out, px. */
  room: number;
};

/** Whether a point of the plane is covered by an opaque piece. */
export type Covered = (point: Point) => boolean;

/** The lines under all that abuts in the unit at the origin, in the order in which they are drawn. */
export function findAbutments(
  edges: readonly Edge[],
  boxes: readonly Box[],
  lattice: Lattice,
  covered: Covered,
): Abutment[] {
  return inDrawingOrder(stretchesOf(edges, boxes, lattice), lattice, covered);
}

/** So many lines are looked at for what lies round them; thousands would take for ever, and are narrow anyway. */
const MOST_PROBED = 400;

/** A part of a stretch along which its room is much the same. */
type Part = Stretch & { room: number };

/**
 * The lines in the order in which they are drawn: those between two colours, each paint together, then those within one
 * colour, which must show it up to their very ends. A line is as wide as what covers it leaves room for: towards a sharp
 * corner of its pieces it is cut into narrower parts. Where another one goes on in the same direction, the one that is drawn
 * first runs on under the other, if that has as much room.
 */
function inDrawingOrder(stretches: readonly Stretch[], lattice: Lattice, covered: Covered): Abutment[] {
  const paints = [...new Set(stretches.map(({ paint }) => paint))];
  const rank = ({ alike, paint }: Stretch): number => (alike ? paints.length : 0) + paints.indexOf(paint);
  const parts = [...stretches]
    .sort((one, other) => rank(one) - rank(other))
    .flatMap((stretch, index) =>
      index < MOST_PROBED ? partsOf(stretch, covered) : [{ ...stretch, room: Infinity }],
    );
  const ends = new Map<string, Part[]>();
  const name = (end: Point, other: Point, sign: 1 | -1): string => {
    const size = Math.hypot(end.x - other.x, end.y - other.y);
    const out = [(end.x - other.x) / size, (end.y - other.y) / size].map(
      (part) => Math.round(part * sign * 1000) + 0,
    );
    return `${cellPlace(end, lattice)} ${out.join()}`;
  };
  for (const part of parts) {
    const { from, to } = part;
    for (const key of [name(from, to, 1), name(to, from, 1)]) ends.set(key, [...(ends.get(key) ?? []), part]);
  }
  const runOf = (part: Part, end: Point, other: Point): number => {
    const next = ends.get(name(end, other, -1)) ?? [];
    const hidden = next.every((one) => rank(one) >= rank(part) && one.room >= part.room);
    return next.length > 0 && hidden ? Math.min(...next.map(lengthOf)) : 0;
  };
  return parts.map((part) => ({
    ...part,
    runFrom: runOf(part, part.from, part.to),
    runTo: runOf(part, part.to, part.from),
  }));
}

const lengthOf = ({ from, to }: Stretch): number => Math.hypot(to.x - from.x, to.y - from.y);

/** Where along a stretch its room is looked for, as shares of it; the outermost places stand for its ends. */
const CUTS = [0.003, 0.025, 0.06, 0.12, 0.22, 0.36, 0.64, 0.78, 0.88, 0.94, 0.975, 0.997];

function partsOf(stretch: Stretch, covered: Covered): Part[] {
  const { from, to } = stretch;
  const at = (share: number): Point => ({
    x: from.x + (to.x - from.x) * share,
    y: from.y + (to.y - from.y) * share,
  });
  const roomAt = (share: number): number => roomOf(at(share), from, to, covered);
  const three = [CUTS[0]!, 0.5, CUTS.at(-1)!].map(roomAt);
  if (three.every((room) => room === Infinity)) return [{ ...stretch, room: Infinity }];
  const rooms = CUTS.map(roomAt);
  const parts: Part[] = [];
  let begun = 0;
  let room = Math.min(rooms[0]!, rooms[1]!);
  for (let index = 1; index < CUTS.length; index += 1) {
    const after = index + 1 < CUTS.length ? Math.min(rooms[index]!, rooms[index + 1]!) : null;
    if (after !== null && alike(room, after)) {
      room = Math.min(room, after);
      continue;
    }
    const end = after === null ? 1 : CUTS[index]!;
    parts.push({ ...stretch, from: at(begun), to: at(end), room });
    begun = end;
    room = after ?? room;
  }
  return parts;
}

/** Rooms that differ by so little that one part will do. */
const alike = (one: number, other: number): boolean =>
  one === other || Math.max(one, other) < 1.15 * Math.min(one, other);

/** How far from a point of a line, to both sides, no open ground is found. */
function roomOf({ x, y }: Point, from: Point, to: Point, covered: Covered): number {
  const size = Math.hypot(to.x - from.x, to.y - from.y);
  const across = { x: -(to.y - from.y) / size, y: (to.x - from.x) / size };
  const isOpen = (reach: number): boolean =>
    [-reach, reach].some((by) => !covered({ x: x + across.x * by, y: y + across.y * by }));
  let held = 0;
  for (let reach = 0.03; reach < 40; reach *= 2) {
    if (!isOpen(reach)) {
      held = reach;
      continue;
    }
    let open = reach;
    for (let round = 0; round < 4; round += 1) {
      const middle = (held + open) / 2;
      if (isOpen(middle)) open = middle;
      else held = middle;
    }
    return held;
  }
  return Infinity;
}

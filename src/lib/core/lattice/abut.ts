import Flatbush from 'flatbush';
import { grow, unionBoxes, type Box } from '../geom/box';
import { cross, type Point } from '../geom/point';
import { modulo } from '../num/tolerance';
import { offsetsMeeting, regionOfBox } from './meet';
import type { Lattice } from './repeat';

/**
 * Where two pieces end on one line, each is anti-aliased on its own there and the ground shines through: a hairline.
 * This finds those lines. A scene draws a narrow line under the pieces along them, in the colour of one piece.
 */
export type Edge = {
  from: Point;
  to: Point;
  /** The unit vector that points into the piece. */
  inward: Point;
  /** The piece that the edge bounds; an edge never abuts another of the same piece at the same place. */
  piece: number;
  /** What the edge's piece is painted with there. */
  paint: string;
};

/** `joinedFrom` and `joinedTo`: another abutment goes on from that end, so the line may run on a little there, unseen. */
export type Abutment = { from: Point; to: Point; paint: string; joinedFrom: boolean; joinedTo: boolean };

type Stretch = { from: Point; to: Point; paint: string };

/** Lines nearer than this (px) count as one; a gap wider than this is meant. */
const NEAR = 1e-3;
/** Edges held against each other: thousands on one line are no abutting pieces any more, and would take for ever. */
const MOST_COMPARED = 3_000_000;

/**
 * The stretches along which an edge of the unit at the origin lies on an edge of another piece, or of a copy on the
 * lattice, with the two pieces on opposite sides.
 */
export function findAbutments(edges: readonly Edge[], boxes: readonly Box[], lattice: Lattice): Abutment[] {
  const lines = new Map<string, Edge[]>();
  const { all, touching } = nearbyCopies(edges, boxes, lattice);
  for (const edge of all) {
    const key = lineKeys(edge)[0] ?? '';
    const held = lines.get(key);
    if (held) held.push(edge);
    else lines.set(key, [edge]);
  }
  const found: Stretch[] = [];
  const seen = new Set<string>();
  let compared = 0;
  for (const edge of edges) {
    if (!touching.has(edge.piece)) continue;
    for (const key of lineKeys(edge)) {
      const others = lines.get(key) ?? [];
      compared += others.length;
      if (compared > MOST_COMPARED) return markJoints(found, lattice);
      for (const other of others) {
        const stretch = sharedStretch(edge, other);
        if (!stretch) continue;
        const along = { x: stretch.to.x - stretch.from.x, y: stretch.to.y - stretch.from.y };
        const name = `${cellPlace(stretch.from, lattice)} ${along.x.toFixed(3)},${along.y.toFixed(3)}`;
        if (seen.has(name)) continue;
        seen.add(name);
        found.push(stretch);
      }
    }
  }
  return markJoints(found, lattice);
}

/**
 * Notes at which ends another abutment goes on in the same direction, anywhere on the plane. Only there may the line
 * run on: at other meetings of lines, as at the corner of a woven check, open ground may lie beyond.
 */
function markJoints(abutments: readonly Stretch[], lattice: Lattice): Abutment[] {
  const ends = new Set<string>();
  const name = (end: Point, other: Point, sign: 1 | -1): string => {
    const size = Math.hypot(end.x - other.x, end.y - other.y);
    const out = [(end.x - other.x) / size, (end.y - other.y) / size].map(
      (part) => Math.round(part * sign * 1000) + 0,
    );
    return `${cellPlace(end, lattice)} ${out.join()}`;
  };
  for (const { from, to } of abutments) ends.add(name(from, to, 1)).add(name(to, from, 1));
  return abutments.map((abutment) => ({
    ...abutment,
    joinedFrom: ends.has(name(abutment.from, abutment.to, -1)),
    joinedTo: ends.has(name(abutment.to, abutment.from, -1)),
  }));
}

/** A point's place within the lattice cell, rounded: equal for points that the lattice lays onto each other. */
function cellPlace(point: Point, lattice: Lattice): string {
  const { a, b } = lattice;
  const det = cross(a, b);
  const share = (value: number): string => {
    const rest = modulo(value, 1);
    return (rest > 1 - 1e-5 ? 0 : rest).toFixed(4);
  };
  return `${share(cross(point, b) / det)},${share(cross(a, point) / det)}`;
}

/** Which pieces of the unit touch any other piece of the plane: only they can abut. */
export function touchingPieces(boxes: readonly Box[], lattice: Lattice): Set<number> {
  const marks = boxes.map((_, piece): Edge => {
    const at = { x: 0, y: 0 };
    return { from: at, to: at, inward: at, piece, paint: '' };
  });
  return nearbyCopies(marks, boxes, lattice).touching;
}

/**
 * All edges of the unit and of those copies of its pieces that touch it, and which of the unit's pieces touch any other:
 * the rest cannot abut.
 */
function nearbyCopies(
  edges: readonly Edge[],
  boxes: readonly Box[],
  lattice: Lattice,
): { all: Edge[]; touching: Set<number> } {
  const all: Edge[] = [];
  const touching = new Set<number>();
  const whole = unionBoxes(boxes);
  if (!whole) return { all, touching };
  const index = new Flatbush(boxes.length);
  for (const { x, y, width, height } of boxes)
    index.add(x - NEAR, y - NEAR, x + width + NEAR, y + height + NEAR);
  index.finish();
  const byPiece = new Map<number, Edge[]>();
  for (const edge of edges) {
    const held = byPiece.get(edge.piece);
    if (held) held.push(edge);
    else byPiece.set(edge.piece, [edge]);
  }
  const region = regionOfBox(grow(whole, NEAR));
  for (const [piece, own] of byPiece) {
    const box = boxes[piece];
    if (!box) continue;
    for (const offset of offsetsMeeting(lattice, box, region)) {
      const [x, y] = [box.x + offset.x, box.y + offset.y];
      const still = Math.abs(offset.x) < 1e-9 && Math.abs(offset.y) < 1e-9;
      const met = index
        .search(x, y, x + box.width, y + box.height)
        .filter((other) => !(still && other === piece));
      if (met.length === 0) continue;
      for (const other of met) touching.add(other);
      for (const edge of own) {
        all.push({
          ...edge,
          from: { x: edge.from.x + offset.x, y: edge.from.y + offset.y },
          to: { x: edge.to.x + offset.x, y: edge.to.y + offset.y },
        });
      }
    }
  }
  return { all, touching };
}

/** The line that an edge lies on, as rounded angle and distance; all neighbouring roundings, the edge's own first. */
function lineKeys(edge: Edge): string[] {
  const { direction, distance } = lineOf(edge);
  const angle = Math.round(Math.atan2(direction.y, direction.x) * 2000);
  const steps = Math.round(distance / (2 * NEAR));
  const half = Math.round(Math.PI * 2000);
  const keys: string[] = [];
  for (const turn of [0, -1, 1]) {
    for (const shift of [0, -1, 1]) keys.push(`${(((angle + turn) % half) + half) % half}:${steps + shift}`);
  }
  return keys;
}

function lineOf(edge: Edge): { direction: Point; distance: number } {
  let dx = edge.to.x - edge.from.x;
  let dy = edge.to.y - edge.from.y;
  const size = Math.hypot(dx, dy) || 1;
  dx /= size;
  dy /= size;
  if (dy < -1e-9 || (Math.abs(dy) <= 1e-9 && dx < 0)) {
    dx = -dx;
    dy = -dy;
  }
  return { direction: { x: dx, y: dy }, distance: edge.from.x * -dy + edge.from.y * dx };
}

function sharedStretch(edge: Edge, other: Edge): Stretch | null {
  if (edge.inward.x * other.inward.x + edge.inward.y * other.inward.y > -0.999) return null;
  const { direction } = lineOf(edge);
  const along = (p: Point): number => p.x * direction.x + p.y * direction.y;
  const apart = (p: Point): number =>
    Math.abs(-(p.x - edge.from.x) * direction.y + (p.y - edge.from.y) * direction.x);
  if (apart(other.from) > NEAR || apart(other.to) > NEAR) return null;
  const low = Math.max(
    Math.min(along(edge.from), along(edge.to)),
    Math.min(along(other.from), along(other.to)),
  );
  const high = Math.min(
    Math.max(along(edge.from), along(edge.to)),
    Math.max(along(other.from), along(other.to)),
  );
  if (high - low < 10 * NEAR) return null;
  const start = along(edge.from);
  const at = (t: number): Point => ({
    x: edge.from.x + direction.x * (t - start),
    y: edge.from.y + direction.y * (t - start),
  });
  return { from: at(low), to: at(high), paint: edge.paint };
}

import Flatbush from 'flatbush';
import { grow, unionBoxes, type Box } from '../geom/box';
import { cross, type Point } from '../geom/point';
import { modulo } from '../num/tolerance';
import { offsetsMeeting, regionOfBox } from './meet';
import type { Lattice } from './repeat';

/**
 * Where two pieces end on one line, each is anti-aliased on its own there and the ground shines through: a hairline.
 * This finds those lines; `underlay.ts` says what is drawn under the pieces along them.
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

/** An edge of a copy; `level` counts the copies in the plane's overlap order, the lowest first. */
type LaidEdge = Edge & { level: number };

/** A stretch of a line on which two pieces end; `paint` is that of the lower one, `alike` where both have it. */
export type Stretch = { from: Point; to: Point; paint: string; alike: boolean };

/** Lines nearer than this (px) count as one; a gap wider than this is meant. */
const NEAR = 1e-3;
/** Edges held against each other: thousands on one line are no abutting pieces any more, and would take for ever. */
const MOST_COMPARED = 3_000_000;

/**
 * The stretches along which an edge of the unit at the origin lies on an edge of another piece, or of a copy on the
 * lattice, with the two pieces on opposite sides.
 */
export function stretchesOf(edges: readonly Edge[], boxes: readonly Box[], lattice: Lattice): Stretch[] {
  const found: Stretch[] = [];
  const seen = new Set<string>();
  for (const { edge, other, shared, own } of meetings(edges, boxes, lattice)) {
    const isLower = own < other.level || (own === other.level && edge.piece < other.piece);
    const stretch: Stretch = {
      ...shared,
      paint: isLower ? edge.paint : other.paint,
      alike: edge.paint === other.paint,
    };
    const along = { x: stretch.to.x - stretch.from.x, y: stretch.to.y - stretch.from.y };
    const name = `${cellPlace(stretch.from, lattice)} ${along.x.toFixed(3)},${along.y.toFixed(3)}`;
    if (seen.has(name)) continue;
    seen.add(name);
    found.push(stretch);
  }
  return found;
}

/** How much of each edge of the unit lies on an edge of another piece or copy, as a share of its length. */
export function abuttingShares(
  edges: readonly Edge[],
  boxes: readonly Box[],
  lattice: Lattice,
): Map<Edge, number> {
  const covered = new Map<Edge, Map<string, number>>();
  for (const { edge, shared } of meetings(edges, boxes, lattice)) {
    const held = covered.get(edge) ?? new Map<string, number>();
    covered.set(edge, held);
    const length = Math.hypot(shared.to.x - shared.from.x, shared.to.y - shared.from.y);
    held.set(`${shared.from.x.toFixed(3)},${shared.from.y.toFixed(3)}`, length);
  }
  return new Map(
    [...covered].map(([edge, parts]) => {
      const whole = Math.hypot(edge.to.x - edge.from.x, edge.to.y - edge.from.y);
      return [edge, [...parts.values()].reduce((sum, part) => sum + part, 0) / whole];
    }),
  );
}

type Meeting = { edge: Edge; other: LaidEdge; shared: { from: Point; to: Point }; own: number };

/** Every edge of the unit with each edge that it shares a stretch with. */
function* meetings(edges: readonly Edge[], boxes: readonly Box[], lattice: Lattice): Generator<Meeting> {
  const lines = new Map<string, LaidEdge[]>();
  const { all, touching, own } = nearbyCopies(edges, boxes, lattice);
  for (const edge of all) {
    const key = lineKeys(edge)[0] ?? '';
    const held = lines.get(key);
    if (held) held.push(edge);
    else lines.set(key, [edge]);
  }
  let compared = 0;
  for (const edge of edges) {
    if (!touching.has(edge.piece)) continue;
    for (const key of lineKeys(edge)) {
      const others = lines.get(key) ?? [];
      compared += others.length;
      if (compared > MOST_COMPARED) return;
      for (const other of others) {
        const shared = sharedStretch(edge, other);
        if (shared) yield { edge, other, shared, own };
      }
    }
  }
}

/** Whether two rows of edges share a stretch with their pieces on opposite sides. */
export const edgesAbut = (some: readonly Edge[], others: readonly Edge[]): boolean =>
  some.some((edge) => others.some((other) => sharedStretch(edge, other) !== null));

/** A point's place within the lattice cell, rounded: equal for points that the lattice lays onto each other. */
export function cellPlace(point: Point, lattice: Lattice): string {
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
): { all: LaidEdge[]; touching: Set<number>; own: number } {
  const all: LaidEdge[] = [];
  const touching = new Set<number>();
  const whole = unionBoxes(boxes);
  if (!whole) return { all, touching, own: 0 };
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
  const offsetName = ({ x, y }: Point): string => `${x.toFixed(4)},${y.toFixed(4)}`;
  const levels = new Map(
    offsetsMeeting(lattice, whole, region).map((offset, level) => [offsetName(offset), level]),
  );
  const levelOf = (offset: Point): number =>
    levels.get(offsetName({ x: offset.x + 0, y: offset.y + 0 })) ?? 0;
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
      const level = levelOf(offset);
      for (const edge of own) {
        all.push({
          ...edge,
          level,
          from: { x: edge.from.x + offset.x, y: edge.from.y + offset.y },
          to: { x: edge.to.x + offset.x, y: edge.to.y + offset.y },
        });
      }
    }
  }
  return { all, touching, own: levelOf({ x: 0, y: 0 }) };
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

function sharedStretch(edge: Edge, other: Edge): { from: Point; to: Point } | null {
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
  return { from: at(low), to: at(high) };
}

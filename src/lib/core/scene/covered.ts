import Flatbush from 'flatbush';
import { grow, unionBoxes } from '../geom/box';
import type { Point } from '../geom/point';
import type { Covered } from '../lattice/underlay';
import { offsetsMeeting, regionOfBox } from '../lattice/meet';
import type { Lattice } from '../lattice/repeat';
import { distanceToSegment, inkOf, insideInk, segmentsOf, type Ink } from './ink';
import type { Piece } from './piece';

/** So far beyond the art of one unit it is known what covers the plane, px. */
const AROUND = 45;
/** So many copies are known; with more, what lies far out counts as open. */
const MOST_COPIES = 60_000;

/** A test whether an opaque piece covers a point of the plane in or near the unit at the origin. */
export function coveredBy(pieces: readonly Piece[], lattice: Lattice): Covered {
  let test: Covered | null = null;
  return (point) => (test ??= coverage(pieces, lattice))(point);
}

function coverage(pieces: readonly Piece[], lattice: Lattice): Covered {
  const opaque = pieces.filter(({ opacity, effects }) => opacity === 1 && effects === null);
  const whole = unionBoxes(opaque.map(({ box }) => box));
  if (!whole) return () => false;
  const region = regionOfBox(grow(whole, AROUND));
  const copies: { piece: Piece; offset: Point }[] = [];
  for (const piece of opaque) {
    if (copies.length > MOST_COPIES) break;
    for (const offset of offsetsMeeting(lattice, piece.box, region)) copies.push({ piece, offset });
  }
  const index = new Flatbush(copies.length);
  for (const { piece, offset } of copies) {
    const { x, y, width, height } = piece.box;
    index.add(x + offset.x, y + offset.y, x + offset.x + width, y + offset.y + height);
  }
  index.finish();
  const inks = new Map<Piece, Ink[]>();
  const inkOfPiece = (piece: Piece): Ink[] => {
    const held = inks.get(piece) ?? opaqueInk(piece);
    inks.set(piece, held);
    return held;
  };
  return ({ x, y }) =>
    index.search(x, y, x, y).some((at) => {
      const { piece, offset } = copies[at]!;
      return inkOfPiece(piece).some((ink) => isInked(ink, { x: x - offset.x, y: y - offset.y }));
    });
}

const opaqueInk = ({ elements, matrix }: Piece): Ink[] =>
  inkOf({
    matrix,
    elements: elements.filter(
      ({ opacity, clip, picture, fill }) =>
        opacity === 1 && !clip && !picture && (fill === null || typeof fill === 'string'),
    ),
  });

function isInked(ink: Ink, point: Point): boolean {
  if (insideInk(ink, point)) return true;
  if (ink.half === 0) return false;
  return segmentsOf([ink], 0).some(({ from, to }) => distanceToSegment(point, from, to) < ink.half);
}

import Flatbush from 'flatbush';
import { grow, moveBox, unionBoxes, type Box } from '../geom/box';
import type { Point } from '../geom/point';
import { offsetsMeeting, regionOfBox } from '../lattice/meet';
import { inkDistance, inkOf, moveInk, type Ink } from './ink';
import type { Piece } from './piece';
import type { UnitScene } from './unit';

/** Two pieces, one at a lattice offset, that touch (distance 0) or come nearer than asked. */
export type Touch = { one: string; other: string; at: Point; distance: number };

/** Pieces that are no farther apart than this, px, end on one line: a hundredth of a hair. */
const ONE_LINE = 0.02;

/** More pairs than this are not listed: the answer is clear long before. */
const MOST = 200;

/**
 * Every pair of pieces on the repeating plane that come nearer than `near` px, each once. A pattern whose art is
 * meant to overlap has many; the list stops at two hundred. With `apart` those that touch are left out.
 */
export function findTouches(scene: UnitScene, near: number, apart = false): Touch[] {
  const pieces = scene.pieces.filter((piece) => piece.id !== 'ground');
  const whole = unionBoxes(pieces.map((piece) => piece.box));
  if (!whole) return [];
  const index = new Flatbush(pieces.length);
  for (const { box } of pieces) index.add(box.x, box.y, box.x + box.width, box.y + box.height);
  index.finish();
  const inks = new Map<Piece, Ink[]>();
  const inkAt = (piece: Piece): Ink[] => {
    const held = inks.get(piece) ?? inkOf(piece, 6);
    inks.set(piece, held);
    return held;
  };
  const region = regionOfBox(grow(whole, near));
  const found: Touch[] = [];
  for (const [at, piece] of pieces.entries()) {
    for (const offset of offsetsMeeting(scene.lattice, piece.box, region)) {
      const { x, y, width, height } = grow(moveBox(piece.box, offset), near);
      for (const other of index.search(x, y, x + width, y + height)) {
        if (found.length >= MOST) return found;
        const second = pieces[other];
        if (!second || !isFirstOfPair(at, other, offset)) continue;
        const moved = inkAt(piece).map((ink) => moveInk(ink, offset));
        const distance = inkDistance(moved, inkAt(second));
        if (distance > near || (apart && distance <= ONE_LINE)) continue;
        found.push({
          one: piece.id,
          other: second.id,
          at: between(moveBox(piece.box, offset), second.box),
          distance,
        });
      }
    }
  }
  return found;
}

/** A pair is met twice, from either of its pieces; and no piece is its own neighbour where it lies. */
function isFirstOfPair(at: number, other: number, offset: Point): boolean {
  if (at !== other) return at < other;
  return offset.y > 1e-9 || (Math.abs(offset.y) <= 1e-9 && offset.x > 1e-9);
}

function between(one: Box, other: Box): Point {
  const middle = (low: number, size: number, otherLow: number, otherSize: number): number =>
    (Math.max(low, otherLow) + Math.min(low + size, otherLow + otherSize)) / 2;
  return {
    x: middle(one.x, one.width, other.x, other.width),
    y: middle(one.y, one.height, other.y, other.height),
  };
}

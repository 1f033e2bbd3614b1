import type { Point } from '../geom/point';
import { grow } from '../geom/box';
import { offsetsMeeting, regionOfBox } from '../lattice/meet';
import { boxesNear, inkDistance, inkOf, moveInk } from './ink';
import type { UnitScene } from './unit';

/** Two pieces, one at a lattice offset, that touch (distance 0) or come nearer than asked. */
export type Touch = { one: string; other: string; at: Point; distance: number };

/** More pairs than this are not listed: the answer is clear long before. */
const MOST = 200;

/**
 * Every pair of pieces on the repeating plane that come nearer than `near` px, each once. A pattern whose art is
 * meant to overlap has many; the list stops at two hundred.
 */
export function findTouches(scene: UnitScene, near: number): Touch[] {
  const pieces = scene.pieces.filter((piece) => piece.id !== 'ground');
  const inks = pieces.map((piece) => inkOf(piece, 6));
  const found: Touch[] = [];
  pieces.forEach((piece, index) => {
    for (let other = index; other < pieces.length && found.length < MOST; other += 1) {
      const second = pieces[other]!;
      const region = regionOfBox(grow(piece.box, near));
      for (const offset of offsetsMeeting(scene.lattice, second.box, region)) {
        // A pair and its mirror image across the lattice are one; a piece is not its own neighbour.
        if (other === index && (offset.y < -1e-9 || (Math.abs(offset.y) <= 1e-9 && offset.x <= 1e-9)))
          continue;
        if (!boxesNear(piece.box, second.box, offset, near)) continue;
        const distance = inkDistance(
          inks[index]!,
          inks[other]!.map((ink) => moveInk(ink, offset)),
        );
        if (distance > near) continue;
        found.push({ one: piece.id, other: second.id, at: between(piece.box, second.box, offset), distance });
      }
    }
  });
  return found;
}

function between(
  one: { x: number; y: number; width: number; height: number },
  other: { x: number; y: number; width: number; height: number },
  offset: Point,
): Point {
  const middle = (low: number, size: number, otherLow: number, otherSize: number): number =>
    (Math.max(low, otherLow) + Math.min(low + size, otherLow + otherSize)) / 2;
  return {
    x: middle(one.x, one.width, other.x + offset.x, other.width),
    y: middle(one.y, one.height, other.y + offset.y, other.height),
  };
}

import type { Point } from '../geom/point';
import { cutSheet, numberOf, type ObjectSpec } from './objects';

/** The developed wall of a cup whose art goes with the cone: how large it is, mm, and which place of the art is at each of its own. */
export type Arc = { width: number; height: number; from: (point: Point) => Point | null };

/**
 * What a printer cuts for such a cup: the wall's true development, a part of a ring, into which the art's rectangle is bent. `null`
 * for what is no such cup.
 */
export function arcOf(object: ObjectSpec): Arc | null {
  if (object.kind !== 'cone') return null;
  const [art, ring] = [cutSheet(object), cutSheet({ ...object, kind: 'cup' })];
  if (!art.ok || !ring.ok) return null;
  const { width, height } = ring.sheet;
  const at = ring.sheet.panels[0]!.at!;
  const up = numberOf(object)('height');
  const inside = (value: number, most: number): number | null =>
    value < -EDGE * most || value > (1 + EDGE) * most ? null : Math.max(0, Math.min(most, value));
  return {
    width,
    height,
    from: (point) => {
      // Where it is on the cup tells where it is on the art: by its height, and by how far round.
      const place = at(point);
      const y = inside(art.sheet.height * (1 - place.y / up), art.sheet.height);
      const turn = Math.atan2(place.x, place.z) / (2 * Math.PI);
      const beyond = isBeyond(point, width);
      if (y === null || beyond(turn)) return null;
      return { x: art.sheet.width * (turn + 0.5), y };
    },
  };
}

/** A hair beyond its edges counts as on them. */
const EDGE = 1e-6;

/** Beyond the ends of the ring the way round goes on from the other end: a place to the left is then on the right. */
const isBeyond =
  ({ x }: Point, width: number) =>
  (turn: number): boolean =>
    Math.abs(turn) > 0.25 && Math.sign(turn) !== Math.sign(x - width / 2) && x !== width / 2;

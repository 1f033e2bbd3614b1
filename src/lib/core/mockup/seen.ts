import type { Point } from '../geom/point';
import type { Blank, Sheet } from './sheet';
import { cross3, dot3, far, minus, type Space } from './space';

/** A cell as it is seen: its corners in mm of the picture, y down, and on its sheet (none where nothing is printed); how light it is, 0 to 1; whether its inside is seen. */
export type SeenCell = { corners: Point[]; from: readonly Point[]; light: number; inside: boolean };

/** Where one looks from, degrees: turned to the right about the object, and raised above it. */
export type Look = { turn: number; raised: number };

/** What lies in the light most: above, to the left, in front. */
const LIGHT: Space = { x: -0.45, y: 0.6, z: 0.66 };

/** An object seen from afar, without perspective: its cells from the furthest to the nearest. */
export function seenFrom({ panels, blanks }: Sheet, { turn, raised }: Look): SeenCell[] {
  const [yaw, pitch] = [(turn * Math.PI) / 180, (raised * Math.PI) / 180];
  const turned = ({ x, y, z }: Space): Space => {
    const across = x * Math.cos(yaw) - z * Math.sin(yaw);
    const towards = x * Math.sin(yaw) + z * Math.cos(yaw);
    return {
      x: across,
      y: y * Math.cos(pitch) - towards * Math.sin(pitch),
      z: y * Math.sin(pitch) + towards * Math.cos(pitch),
    };
  };
  const printed = panels.flatMap(({ at, cells }) =>
    at
      ? cells.map((from) => ({ from, part: 'wall' as const, places: from.map((point) => turned(at(point))) }))
      : [],
  );
  const bare = blanks.map(({ corners, part }) => ({ from: [], part, places: corners.map(turned) }));
  const handle = blanks.flatMap(({ part, corners }) => (part === 'handle' ? corners : []));
  const handleFar = handle.reduce((sum, { x, z }) => sum + x * Math.sin(yaw) + z * Math.cos(yaw), 0) < 0;
  return [...bare, ...printed]
    .map(({ from, part, places }) => {
      const [a, b, , d] = places as [Space, Space, Space, Space];
      // The sheet's corners run clockwise, seen from outside.
      const out = cross3(minus(d, a), minus(b, a));
      const size = far(out) || 1;
      const inside = out.z < 0;
      const facing = dot3(out, LIGHT) / size;
      return {
        corners: places.map(({ x, y }) => ({ x, y: -y })),
        from,
        light: Math.max(0, inside ? -facing * 0.4 : facing),
        inside,
        layer: layerOf(from.length > 0 ? 'printed' : part, inside, handleFar),
        depth: places.reduce((sum, { z }) => sum + z, 0) / places.length,
      };
    })
    .sort((one, other) => one.layer - other.layer || one.depth - other.depth)
    .map(({ depth: _, layer: _layer, ...cell }) => cell);
}

/**
 * What is painted first: a handle behind the walls, the inside of walls, the floor between them, walls from outside, what is printed
 * on or round them, a handle before them. Walls go round what they hold, so no depth need tell these apart.
 */
function layerOf(part: Blank['part'] | 'printed', inside: boolean, handleFar: boolean): number {
  if (part === 'handle') return handleFar ? 0 : 5;
  if (part === 'floor') return 2;
  if (inside) return 1;
  return part === 'printed' ? 4 : 3;
}

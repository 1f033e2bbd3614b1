import type { Point } from '../geom/point';
import type { Sheet } from './sheet';
import { cross3, dot3, far, minus, type Space } from './space';

/** A cell as it is seen: its corners in mm of the picture, y down; how light it is, 0 to 1; whether its inside is seen. */
export type SeenCell = { corners: Point[]; light: number; inside: boolean };

/** Where one looks from, degrees: turned to the right about the object, and raised above it. */
export type Look = { turn: number; raised: number };

/** What lies in the light most: above, to the left, in front. */
const LIGHT: Space = { x: -0.45, y: 0.6, z: 0.66 };

/** An object seen from afar, without perspective: its cells from the furthest to the nearest. */
export function seenFrom({ panels }: Sheet, { turn, raised }: Look): SeenCell[] {
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
  return panels
    .flatMap(({ at, cells }) => (at ? cells.map((cell) => cell.map((point) => turned(at(point)))) : []))
    .map((corners) => {
      const [a, b, , d] = corners as [Space, Space, Space, Space];
      // The sheet's corners run clockwise, seen from outside.
      const out = cross3(minus(d, a), minus(b, a));
      const size = far(out) || 1;
      const inside = out.z < 0;
      const facing = dot3(out, LIGHT) / size;
      return {
        corners: corners.map(({ x, y }) => ({ x, y: -y })),
        light: Math.max(0, inside ? -facing * 0.4 : facing),
        inside,
        depth: corners.reduce((sum, { z }) => sum + z, 0) / corners.length,
      };
    })
    .sort((one, other) => one.depth - other.depth)
    .map(({ corners, light, inside }) => ({ corners, light, inside }));
}

import { cross3, dot3, minus, plus, times, unitOf, type Space } from './space';

/** What the parts of an object are made of that nothing is printed on. */
export const MADE_OF = [
  'paper',
  'ceramic',
  'cloth',
  'cord',
  'glass',
  'wood',
  'metal',
  'dark',
  'plaster',
] as const;
export type MadeOf = (typeof MADE_OF)[number];

/** A part of an object that nothing is printed on: its corners in space, clockwise as seen from outside. */
export type Blank = { corners: Space[]; of: MadeOf };

/** Parts of a round form about its axis. */
export const ROUND = 96;

/** A round wall from one radius and height to another; `from` and `to` are shares of a turn from the front on. */
export const roundBlank = (
  of: MadeOf,
  lower: { radius: number; y: number },
  upper: { radius: number; y: number },
  from = 0,
  to = 1,
): Blank[] =>
  Array.from({ length: ROUND }, (_, index) => {
    const on = ({ radius, y }: typeof lower, share: number): Space => {
      const turn = 2 * Math.PI * (from + (to - from) * share);
      return { x: radius * Math.sin(turn), y, z: radius * Math.cos(turn) };
    };
    const [left, right] = [index / ROUND, (index + 1) / ROUND];
    return { corners: [on(upper, left), on(upper, right), on(lower, right), on(lower, left)], of };
  });

/** What a line of radii and heights makes when it is turned about the upright axis: outside is to the left of its way up. */
export const lathe = (of: MadeOf, line: readonly { radius: number; y: number }[]): Blank[] =>
  line.slice(1).flatMap((upper, index) => roundBlank(of, line[index]!, upper));

/** A ring of a round section about the upright axis: the rolled rim of a cup. */
export const rolled = (of: MadeOf, radius: number, y: number, thick: number): Blank[] =>
  lathe(
    of,
    Array.from({ length: 13 }, (_, at) => {
      const about = (2 * Math.PI * at) / 12 - Math.PI / 2;
      return { radius: radius + thick * Math.cos(about), y: y + thick * Math.sin(about) };
    }),
  );

/** A round floor, seen from above. */
export const floorBlank = (of: MadeOf, radius: number, y: number): Blank => ({
  of,
  corners: Array.from({ length: ROUND }, (_, index) => {
    const turn = (-2 * Math.PI * index) / ROUND;
    return { x: radius * Math.sin(turn), y, z: radius * Math.cos(turn) };
  }),
});

/** An upright block, from its lower left far corner on. */
export function slab(of: MadeOf, from: Space, size: Space): Blank[] {
  const at = (x: 0 | 1, y: 0 | 1, z: 0 | 1): Space => ({
    x: from.x + x * size.x,
    y: from.y + y * size.y,
    z: from.z + z * size.z,
  });
  const faces = [
    [at(0, 1, 1), at(1, 1, 1), at(1, 0, 1), at(0, 0, 1)],
    [at(1, 1, 0), at(0, 1, 0), at(0, 0, 0), at(1, 0, 0)],
    [at(1, 1, 1), at(1, 1, 0), at(1, 0, 0), at(1, 0, 1)],
    [at(0, 1, 0), at(0, 1, 1), at(0, 0, 1), at(0, 0, 0)],
    [at(0, 1, 0), at(1, 1, 0), at(1, 1, 1), at(0, 1, 1)],
    [at(0, 0, 1), at(1, 0, 1), at(1, 0, 0), at(0, 0, 0)],
  ];
  return faces.map((corners) => ({ corners, of }));
}

/** A round cord or bar along places, `thick` mm in diameter, closed at its ends. */
export function tube(of: MadeOf, along: readonly Space[], thick: number, sides = 12): Blank[] {
  let aside: Space | null = null;
  const rings = along.map((place, index) => {
    const before = along[Math.max(0, index - 1)]!;
    const after = along[Math.min(along.length - 1, index + 1)]!;
    const way = unitOf(minus(after, before));
    // Each ring begins where the one before it does, so that the tube is not wrung.
    const start: Space = aside ?? (Math.abs(way.y) > 0.9 ? { x: 1, y: 0, z: 0 } : { x: 0, y: 1, z: 0 });
    aside = unitOf(minus(start, times(way, dot3(start, way))));
    const [one, other] = [aside, cross3(way, aside)];
    return Array.from({ length: sides }, (_, side) => {
      const about = (2 * Math.PI * side) / sides;
      const round = plus(times(one, Math.cos(about)), times(other, Math.sin(about)));
      return plus(place, times(round, thick / 2));
    });
  });
  const walls = rings.slice(1).flatMap((ring, index) =>
    ring.map((corner, side): Blank => {
      const next = (side + 1) % sides;
      const last = rings[index]!;
      return { corners: [last[side]!, corner, ring[next]!, last[next]!], of };
    }),
  );
  const [first, end] = [rings[0]!, rings[rings.length - 1]!];
  return [{ corners: [...first], of }, ...walls, { corners: [...end].reverse(), of }];
}

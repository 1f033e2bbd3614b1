import type { Point } from '../geom/point';
import { slab, tube, type Blank } from './blanks';
import { number, type NumberOf, type ObjectEntry, type Round } from './object-entry';
import { rectangle, type Panel } from './sheet';
import type { Space } from './space';

/** What is folded. Sizes that they start with are common practice, no source. */
export const BOX: ObjectEntry = {
  label: 'Gift box',
  noun: 'box',
  material: 'card',
  numbers: [
    number('width', 'Width', 160),
    number('depth', 'Depth', 110),
    number('height', 'Height', 80),
    number('flap', 'Flaps', 18, 5, 100),
  ],
  round: fourWalls,
  panels: (of) => {
    const [width, depth, height, flap] = [of('width'), of('depth'), of('height'), of('flap')];
    const faces = walls(width, depth, height, flap);
    const back = { x: flap + width + depth, width };
    const sides = [flap + width, flap + 2 * width + depth];
    const dust = Math.min(depth, width / 2);
    return [
      ...faces,
      rectangle('Top', { ...back, y: -depth, height: depth }, ({ x, y }) => ({
        ...{ x: width / 2 - x, y: height, z: depth / 2 - y },
      })),
      rectangle('Base', { ...back, y: height, height: depth }, ({ x, y }) => ({
        ...{ x: width / 2 - x, y: 0, z: y - depth / 2 },
      })),
      rectangle('Tuck of the top', { ...back, y: -depth - flap, height: flap }, null),
      rectangle('Tuck of the base', { ...back, y: height + depth, height: flap }, null),
      ...sides.flatMap((x, index) => [
        rectangle(`Upper flap ${index + 1}`, { x, y: -dust, width: depth, height: dust }, null),
        rectangle(`Lower flap ${index + 1}`, { x, y: height, width: depth, height: dust }, null),
      ]),
    ];
  },
};

export const BAG: ObjectEntry = {
  label: 'Paper bag with gussets',
  noun: 'bag',
  material: 'paper',
  numbers: [
    number('width', 'Width', 240),
    number('depth', 'Depth', 100),
    number('height', 'Height', 320),
    number('flap', 'Glued edge', 20, 5, 100),
    number('turn', 'Turned in at the top', 40, 0, 200),
  ],
  round: fourWalls,
  panels: (of) => {
    const [width, depth, height, flap] = [of('width'), of('depth'), of('height'), of('flap')];
    const whole = flap + 2 * width + 2 * depth;
    const [turn, under] = [of('turn'), depth * 0.75];
    return [
      ...walls(width, depth, height, flap),
      ...(turn > 0 ? [rectangle('Turned in', { x: 0, y: -turn, width: whole, height: turn }, null)] : []),
      rectangle('Folded under', { x: 0, y: height, width: whole, height: under }, null),
    ];
  },
  blanks: (of) => {
    const [x, z] = [of('width') / 2, of('depth') / 2];
    const corners = [
      { x, y: 0.2, z },
      { x: -x, y: 0.2, z },
      { x: -x, y: 0.2, z: -z },
      { x, y: 0.2, z: -z },
    ];
    return [{ corners, of: 'paper' }, ...cords(of, z - 1.5), ...cords(of, 1.5 - z)];
  },
};

/** A bag's handle: a cord in a bow over one side. */
function cords(of: NumberOf, z: number): Blank[] {
  const [half, height] = [of('width') * 0.22, of('height')];
  const rise = Math.min(height * 0.3, of('width') * 0.42);
  const bow = Array.from({ length: 33 }, (_, at): Space => {
    const about = (Math.PI * at) / 32;
    return { x: -half * Math.cos(about), y: height - 8 + rise * Math.sin(about) ** 0.7, z };
  });
  return tube('cord', bow, Math.max(2, of('width') * 0.022));
}

export const POUCH: ObjectEntry = {
  label: 'Flat pouch',
  noun: 'pouch',
  material: 'film',
  numbers: [
    number('width', 'Width', 140),
    number('height', 'Height', 210),
    number('seal', 'Sealed edge', 8, 0, 60),
  ],
  fault: (of) =>
    2 * of('seal') < Math.min(of('width'), of('height')) - 5
      ? null
      : 'The sealed edges leave no room between them; make them narrower.',
  panels: (of) => {
    const [width, height, seal] = [of('width'), of('height'), of('seal')];
    const inner = { y: seal, width: width - 2 * seal, height: height - 2 * seal };
    // What is printed lies a hair before the sealed edges.
    const side =
      (facing: 1 | -1, from: number, before: number) =>
      (mm: Point): Space => ({
        x: facing * (mm.x + from - width / 2),
        y: height - mm.y - from,
        z: facing * (1 + before),
      });
    return [
      rectangle('Front, sealed edges', { x: 0, y: 0, width, height }, side(1, 0, 0)),
      rectangle('Back, sealed edges', { x: width, y: 0, width, height }, side(-1, 0, 0)),
      rectangle('Front', { ...inner, x: seal }, side(1, seal, 0.4)),
      rectangle('Back', { ...inner, x: width + seal }, side(-1, seal, 0.4)),
    ];
  },
};

/** Paper round a box: once round it, and folded over its ends from above and below, where the edges meet. */
export const WRAP: ObjectEntry = {
  label: 'Wrapping round a box',
  noun: 'parcel',
  material: 'paper',
  numbers: [
    number('width', 'Width', 240),
    number('depth', 'Depth', 160),
    number('height', 'Height', 90),
    number('overlap', 'Overlap', 25, 0, 200),
  ],
  panels: (of) => {
    const [width, depth, height, overlap] = [of('width'), of('depth'), of('height'), of('overlap')];
    const [right, near, end] = [width / 2, depth / 2, height / 2];
    const across = { x: end, width };
    const sides = [-1, 1] as const;
    const from = { top: 0, front: depth, base: depth + height, back: 2 * depth + height };
    const whole = 2 * (depth + height);
    return [
      rectangle('Top', { ...across, y: from.top, height: depth }, ({ x, y }) => ({
        ...{ x: x - right, y: height, z: y - near },
      })),
      rectangle('Front', { ...across, y: from.front, height }, ({ x, y }) => ({
        ...{ x: x - right, y: height - y, z: near },
      })),
      rectangle('Base', { ...across, y: from.base, height: depth }, ({ x, y }) => ({
        ...{ x: x - right, y: 0, z: near - y },
      })),
      rectangle('Back', { ...across, y: from.back, height }, ({ x, y }) => ({
        ...{ x: x - right, y, z: -near },
      })),
      // From the top and the base the ends of the paper are folded over those of the box; the rest lies below.
      ...sides.flatMap((side) => {
        const column = { x: side < 0 ? 0 : end + width, width: end };
        const out = (x: number): number => (side < 0 ? end - x : x);
        const name = side < 0 ? 'left' : 'right';
        return [
          rectangle(`Upper fold, ${name}`, { ...column, y: from.top, height: depth }, ({ x, y }) => ({
            ...{ x: side * right, y: height - out(x), z: y - near },
          })),
          rectangle(`Lower fold, ${name}`, { ...column, y: from.base, height: depth }, ({ x, y }) => ({
            ...{ x: side * right, y: out(x), z: near - y },
          })),
          rectangle(`Under the front, ${name}`, { ...column, y: from.front, height }, null),
          rectangle(`Under the back, ${name}`, { ...column, y: from.back, height }, null),
        ];
      }),
      ...(overlap > 0
        ? [rectangle('Overlap', { x: 0, y: whole, width: width + height, height: overlap }, null)]
        : []),
    ];
  },
};

/** Business cards: two piles, one with the front on top, one with the back. */
export const CARDS: ObjectEntry = {
  label: 'Business cards',
  noun: 'cards',
  material: 'card',
  numbers: [
    number('width', 'Width', 85, 20, 300),
    number('height', 'Height', 55, 20, 300),
    number('pile', 'Height of a pile', 12, 1, 100),
  ],
  panels: (of) => {
    const [width, height] = [of('width'), of('height')];
    const on =
      (x: number, z: number) =>
      (mm: Point): Space => ({ x: x + mm.x, y: of('pile') + 0.15, z: z + mm.y });
    return [
      rectangle('Front', { x: 0, y: 0, width, height }, on(-width * 1.06, -height * 0.62)),
      rectangle('Back', { x: width, y: 0, width, height }, on(width * 0.06, -height * 0.38)),
    ];
  },
  blanks: (of) => {
    const [width, height, pile] = [of('width'), of('height'), of('pile')];
    const size = { x: width, y: pile, z: height };
    return [
      ...slab('paper', { x: -width * 1.06, y: 0, z: -height * 0.62 }, size),
      ...slab('paper', { x: width * 0.06, y: 0, z: -height * 0.38 }, size),
    ];
  },
};

/** All round four walls; they are glued at the left edge of the front. */
function fourWalls(of: NumberOf): Round {
  const panels = ['Front', 'Right side', 'Back', 'Left side'];
  return { girth: 2 * (of('width') + of('depth')), panels, joint: 'at the left edge of the front', angle: 0 };
}

/** The four walls of a box in a row, front, right, back, left, and the edge by which the last is glued to the first. */
function walls(width: number, depth: number, height: number, flap: number): Panel[] {
  const wall = (name: string, x: number, wide: number, at: (across: number) => Omit<Space, 'y'>): Panel =>
    rectangle(name, { x, y: 0, width: wide, height }, (mm) => ({ ...at(mm.x), y: height - mm.y }));
  const [right, back] = [width / 2, -depth / 2];
  return [
    rectangle('Glued edge', { x: 0, y: 0, width: flap, height }, null),
    wall('Front', flap, width, (x) => ({ x: x - right, z: -back })),
    wall('Right side', flap + width, depth, (x) => ({ x: right, z: -back - x })),
    wall('Back', flap + width + depth, width, (x) => ({ x: right - x, z: back })),
    wall('Left side', flap + 2 * width + depth, depth, (x) => ({ x: -right, z: back + x })),
  ];
}

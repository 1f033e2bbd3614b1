import type { Point } from '../geom/point';
import { slab, tube, type Blank } from './blanks';
import { number, type NumberOf, type ObjectEntry } from './object-entry';
import { following, profileOf, strips } from './profile';
import { rectangle, type Panel } from './sheet';
import type { Space } from './space';

/** What is sewn or hangs. Sizes that they start with are common practice, no source. */
export const TOTE: ObjectEntry = {
  label: 'Tote bag',
  noun: 'tote',
  material: 'cotton',
  numbers: [
    number('width', 'Width', 380),
    number('height', 'Height', 420),
    number('handle', 'Height of the handles', 240, 50, 600),
  ],
  panels: (of) => {
    const [width, height] = [of('width'), of('height')];
    const fold = profileOf(toteLine, width);
    const middle = fold.at(width).x / 2;
    const side =
      (facing: 1 | -1) =>
      (on: Point, y: number): Space => ({ x: facing * (on.x - middle), y: height - y, z: facing * on.y });
    return [
      following('Front', { x: 0, y: 0, width, height }, 'across', fold, side(1)),
      following('Back', { x: width, y: 0, width, height }, 'across', fold, side(-1)),
    ];
  },
  blanks: (of) => {
    const [width, height] = [of('width'), of('height')];
    const fold = profileOf(toteLine, width);
    const middle = fold.at(width).x / 2;
    const rim = Array.from({ length: 49 }, (_, at) => fold.at((width * at) / 48));
    const floor = [
      ...rim.map((on) => ({ x: on.x - middle, y: 0.5, z: on.y })),
      ...rim.map((on) => ({ x: middle - on.x, y: 0.5, z: -on.y })),
    ];
    const strap = (facing: 1 | -1): Blank[] => {
      const [from, to] = [fold.at(width * 0.27), fold.at(width * 0.73)];
      const [left, right] = [from.x - middle, to.x - middle];
      const bow = (wide: number): Space[] =>
        Array.from({ length: 41 }, (_, at): Space => {
          const about = (Math.PI * at) / 40;
          const share = Math.sin(about) ** 0.55;
          return {
            x: facing * ((left + right) / 2 - ((right - left) / 2) * Math.cos(about) * (1 + wide)),
            y: height - 30 + (of('handle') + 30) * share * (1 + wide * 0.35),
            z: facing * (from.y - 3 - from.y * 0.75 * share),
          };
        });
      const [inner, outer] = [bow(-0.07), bow(0.07)];
      return inner.slice(1).map((corner, index) => ({
        corners: [outer[index]!, outer[index + 1]!, corner, inner[index]!],
        of: 'cloth',
      }));
    };
    return [{ corners: floor, of: 'cloth' }, ...strap(1), ...strap(-1)];
  },
};

/** A tote's side from above: full in the middle, with soft upright folds. */
const toteLine = (share: number): Point => ({
  x: share,
  y: 0.42 * share * (1 - share) + 0.009 * Math.sin(share * Math.PI * 5) * Math.sin(share * Math.PI),
});

export const CUSHION: ObjectEntry = {
  label: 'Cushion',
  noun: 'cushion',
  material: 'cotton',
  numbers: [number('width', 'Width', 450, 100), number('height', 'Height', 450, 100)],
  stretches: { share: () => 0.075, why: 'It is stuffed, and cloth gives way' },
  panels: (of) => {
    const [width, height] = [of('width'), of('height')];
    const bulge = cushionBulge(of);
    const side =
      (facing: 1 | -1) =>
      ({ x, y }: Point): Space => {
        const [u, v] = [(2 * x) / width - 1, (2 * y) / height - 1];
        return {
          x: facing * drawnIn(u, v, width, bulge),
          y: height / 2 - drawnIn(v, u, height, bulge),
          z: facing * bulge * hill(u) * hill(v),
        };
      };
    const panel = (name: string, x: number, facing: 1 | -1): Panel => {
      const box = { x, y: 0, width, height };
      return { ...rectangle(name, box, side(facing)), cells: strips(box, 28, 28) };
    };
    return [panel('Front', 0, 1), panel('Back', width, -1)];
  },
};

const cushionBulge = (of: NumberOf): number => 0.17 * Math.min(of('width'), of('height'));
const hill = (share: number): number => 1 - Math.min(1, share * share);
const PARTS = 24;

/** How far from the middle a place lies whose cloth rises: the way along the cloth is as long as on the sheet. Shares −1 to 1, mm. */
function drawnIn(along: number, across: number, side: number, bulge: number): number {
  const half = side / 2;
  const rise = (share: number): number => {
    const inside = Math.max(-1, Math.min(1, share));
    return (-2 * inside * bulge * hill(across)) / half;
  };
  let way = 0;
  for (let part = 0; part < PARTS; part += 1) {
    const slope = rise((along * (part + 0.5)) / PARTS);
    way += Math.sqrt(Math.max(0.02, 1 - slope * slope));
  }
  return (half * along * way) / PARTS;
}

export const TOWEL: ObjectEntry = {
  label: 'Towel over a rail',
  noun: 'towel',
  material: 'cotton',
  numbers: [
    number('width', 'Width', 700, 100),
    number('height', 'Length', 1400, 200, 3000),
    number('back', 'Of that behind', 560, 50, 1500),
  ],
  fault: (of) =>
    of('back') < of('height') - 100
      ? null
      : 'All of it would hang behind the rail; let less of its length hang there.',
  panels: (of) => {
    const [width, length, back] = [of('width'), of('height'), of('back')];
    const front = length - back - Math.PI * RAIL;
    const top = Math.max(front, back) + 60;
    const bow = profileOf((share) => {
      const along = share * length - back;
      if (along < 0) return { x: -RAIL, y: top + along };
      if (along > Math.PI * RAIL) return { x: RAIL, y: top - (along - Math.PI * RAIL) };
      const about = Math.PI - along / RAIL;
      return { x: RAIL * Math.cos(about), y: top + RAIL * Math.sin(about) };
    }, length);
    const box = { x: 0, y: 0, width, height: length };
    return [following('Towel', box, 'down', bow, (on, x) => ({ x: x - width / 2, y: on.y, z: on.x }))];
  },
  blanks: (of) => {
    const [width, length, back] = [of('width'), of('height'), of('back')];
    const top = Math.max(length - back - Math.PI * RAIL, back) + 60;
    const [left, right] = [-width * 0.62, width * 0.62];
    const post = (x: number): Blank[] => [
      ...tube(
        'wood',
        [
          { x, y: 12, z: 0 },
          { x, y: top + RAIL, z: 0 },
        ],
        30,
      ),
      ...slab('wood', { x: x - 30, y: 0, z: -160 }, { x: 60, y: 24, z: 320 }),
    ];
    return [
      ...tube(
        'metal',
        [
          { x: left, y: top, z: 0 },
          { x: right, y: top, z: 0 },
        ],
        2 * RAIL - 3,
        24,
      ),
      ...post(left),
      ...post(right),
    ];
  },
};
/** Half of what the rail is thick, mm. */
const RAIL = 14;

export const CLOTH: ObjectEntry = {
  label: 'Cloth with folds',
  noun: 'cloth',
  material: 'cotton',
  numbers: [number('width', 'Width', 1200, 200, 4000), number('height', 'Length', 1100, 200, 3000)],
  panels: (of) => {
    const [width, height] = [of('width'), of('height')];
    const folds = profileOf(foldLine, width);
    const middle = folds.at(width).x / 2;
    const box = { x: 0, y: 0, width, height };
    return [
      following('Cloth', box, 'across', folds, (on, y) => ({
        x: on.x - middle,
        y: height - y + 40,
        z: on.y,
      })),
    ];
  },
  blanks: (of) => {
    const folds = profileOf(foldLine, of('width'));
    const half = folds.at(of('width')).x / 2 + 60;
    const y = of('height') + 40 + 12;
    return tube(
      'wood',
      [
        { x: -half, y, z: 0 },
        { x: half, y, z: 0 },
      ],
      28,
      20,
    );
  },
};

/** Folds from above: seven, of which no two are alike. */
const foldLine = (share: number): Point => ({
  x: share,
  y: 0.034 * Math.sin(share * Math.PI * 14) + 0.012 * Math.sin(share * Math.PI * 5 + 1),
});

export const BANNER: ObjectEntry = {
  label: 'Hanging banner',
  noun: 'banner',
  material: 'cotton',
  numbers: [number('width', 'Width', 800, 100, 4000), number('height', 'Height', 1800, 200, 6000)],
  panels: (of) => {
    const [width, height] = [of('width'), of('height')];
    return [
      rectangle('Front', { x: 0, y: 0, width, height }, ({ x, y }) => ({
        ...{ x: x - width / 2, y: height - y + 120, z: 0.6 },
      })),
      rectangle('Back', { x: width, y: 0, width, height }, ({ x, y }) => ({
        ...{ x: width / 2 - x, y: height - y + 120, z: -0.6 },
      })),
    ];
  },
  blanks: (of) => {
    const half = of('width') / 2 + 40;
    const bar = (y: number): Blank[] =>
      tube(
        'wood',
        [
          { x: -half, y, z: 0 },
          { x: half, y, z: 0 },
        ],
        34,
        20,
      );
    const top = of('height') + 120;
    const cord = tube(
      'cord',
      [
        { x: -half + 25, y: top, z: 0 },
        { x: 0, y: top + of('width') * 0.42, z: 0 },
        { x: half - 25, y: top, z: 0 },
      ],
      6,
    );
    return [...bar(top), ...bar(120), ...cord];
  },
};

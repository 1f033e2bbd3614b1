import { lathe, slab, type Blank } from './blanks';
import { number, type NumberOf, type ObjectEntry } from './object-entry';
import { rectangle, type Panel } from './sheet';

/** An upright rectangle in the middle, its lower edge at `y`, `z` before the middle. */
const upright = (name: string, of: NumberOf, y: number, z: number): Panel => {
  const [width, height] = [of('width'), of('height')];
  return rectangle(name, { x: 0, y: 0, width, height }, (mm) => ({
    ...{ x: mm.x - width / 2, y: y + height - mm.y, z },
  }));
};

/** What shows a flat picture. Sizes that they start with are common practice, no source. */
export const POSTER: ObjectEntry = {
  label: 'Poster in a frame',
  noun: 'poster',
  material: 'paper',
  numbers: [
    number('width', 'Width', 500, 50, 3000),
    number('height', 'Height', 700, 50, 3000),
    number('frame', 'Width of the frame', 18, 3, 150),
  ],
  panels: (of) => [upright('Poster', of, of('frame'), 0)],
  blanks: (of) => {
    const [width, height, frame] = [of('width'), of('height'), of('frame')];
    const [deep, left, all] = [24, -width / 2 - frame, height + 2 * frame];
    const z = -deep * 0.6;
    return [
      ...slab('wood', { x: left, y: 0, z }, { x: frame, y: all, z: deep }),
      ...slab('wood', { x: width / 2, y: 0, z }, { x: frame, y: all, z: deep }),
      ...slab('wood', { x: -width / 2, y: 0, z }, { x: width, y: frame, z: deep }),
      ...slab('wood', { x: -width / 2, y: height + frame, z }, { x: width, y: frame, z: deep }),
      ...slab('dark', { x: -width / 2, y: frame, z }, { x: width, y: height, z: 4 }),
    ];
  },
};

/** A board that stands upright; and what any flat surface on a photograph is. */
export const BOARD: ObjectEntry = {
  label: 'Board',
  noun: 'board',
  material: 'card',
  numbers: [number('width', 'Width', 200, 5, 10_000), number('height', 'Height', 200, 5, 10_000)],
  panels: (of) => [upright('Front', of, 0, 1.5)],
  blanks: (of) =>
    slab('paper', { x: -of('width') / 2, y: 0, z: -1.5 }, { x: of('width'), y: of('height'), z: 2.8 }),
};

export const PHONE: ObjectEntry = {
  label: 'Phone screen',
  noun: 'phone',
  material: 'screen',
  numbers: [number('width', 'Width', 68, 20, 300), number('height', 'Height', 147, 20, 400)],
  panels: (of) => [upright('Screen', of, 5, 4.1)],
  blanks: (of) =>
    slab(
      'dark',
      { x: -of('width') / 2 - 4, y: 0, z: -4 },
      { x: of('width') + 8, y: of('height') + 10, z: 8 },
    ),
};

export const LAPTOP: ObjectEntry = {
  label: 'Laptop screen',
  noun: 'laptop',
  material: 'screen',
  numbers: [number('width', 'Width', 300, 100, 600), number('height', 'Height', 190, 60, 400)],
  panels: (of) => [upright('Screen', of, 24, 0.6)],
  blanks: (of) => {
    const [width, height] = [of('width'), of('height')];
    const left = -width / 2 - 8;
    const keys: Blank[] = [];
    const [columns, rows] = [12, 4];
    const wide = (width - 30) / columns;
    for (let at = 0; at < columns * rows; at += 1) {
      const place = {
        x: -width / 2 + 15 + (at % columns) * wide,
        y: 12,
        z: 24 + Math.floor(at / columns) * wide,
      };
      keys.push(...slab('dark', place, { x: wide * 0.84, y: 1.6, z: wide * 0.84 }));
    }
    return [
      ...slab('dark', { x: left, y: 14, z: -6 }, { x: width + 16, y: height + 20, z: 6 }),
      ...slab('metal', { x: left, y: 0, z: -6 }, { x: width + 16, y: 12, z: height + 26 }),
      ...keys,
    ];
  },
};

/** A papered wall, and furniture by which one sees how large it is. */
export const WALL: ObjectEntry = {
  label: 'Wall of a room',
  noun: 'wall',
  material: 'paper',
  numbers: [number('width', 'Width', 3200, 1500, 8000), number('height', 'Height', 2500, 1500, 5000)],
  panels: (of) => [upright('Wall', of, 90, 0)],
  blanks: (of) => {
    const [width, height] = [of('width'), of('height')];
    const left = -width / 2;
    const bench = Math.min(1500, width * 0.5);
    const from = -bench * 0.62;
    const leg = (x: number, z: number): Blank[] => slab('wood', { x, y: 0, z }, { x: 45, y: 300, z: 45 });
    const lamp = from + bench + 330;
    return [
      ...slab('plaster', { x: left, y: 0, z: -30 }, { x: width, y: 90, z: 46 }),
      ...slab('plaster', { x: left, y: 90 + height, z: -30 }, { x: width, y: 60, z: 40 }),
      // A bench with two cushions: its seat is 430 mm high.
      ...leg(from + 30, 180),
      ...leg(from + bench - 75, 180),
      ...leg(from + 30, 720),
      ...leg(from + bench - 75, 720),
      ...slab('wood', { x: from, y: 300, z: 150 }, { x: bench, y: 40, z: 650 }),
      ...slab('cloth', { x: from + 10, y: 340, z: 160 }, { x: bench / 2 - 15, y: 110, z: 620 }),
      ...slab('cloth', { x: from + bench / 2 + 5, y: 340, z: 160 }, { x: bench / 2 - 15, y: 110, z: 620 }),
      ...slab('cloth', { x: from + 10, y: 450, z: 140 }, { x: bench - 20, y: 330, z: 130 }),
      // A lamp of 1500 mm beside it.
      ...lathe('metal', [
        { radius: 150, y: 0 },
        { radius: 150, y: 14 },
        { radius: 11, y: 22 },
        { radius: 11, y: 1230 },
      ]).map((blank) => aside(blank, lamp, 420)),
      ...lathe('cloth', [
        { radius: 190, y: 1200 },
        { radius: 125, y: 1500 },
      ]).map((blank) => aside(blank, lamp, 420)),
    ];
  },
};

const aside = ({ corners, of }: Blank, x: number, z: number): Blank => ({
  corners: corners.map((corner) => ({ x: corner.x + x, y: corner.y, z: corner.z + z })),
  of,
});

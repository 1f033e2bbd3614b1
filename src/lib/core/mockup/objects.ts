import type { Point } from '../geom/point';
import {
  bent,
  floorBlank,
  rectangle,
  roundBlank,
  roundWall,
  sheetOf,
  type Blank,
  type Panel,
  type Sheet,
} from './sheet';
import type { Space } from './space';

/** What patterns are made for, with true sizes in mm. */
export const OBJECT_KINDS = ['cup', 'mug', 'label', 'box', 'bag', 'pouch'] as const;
export type ObjectKind = (typeof OBJECT_KINDS)[number];

export type ObjectNumber = { key: string; label: string; least: number; most: number; start: number };

/** The numbers of an object by their keys, mm. */
export type ObjectNumbers = Readonly<Record<string, number>>;

export const isObjectKind = (text: unknown): text is ObjectKind =>
  (OBJECT_KINDS as readonly unknown[]).includes(text);

/** An object by its numbers. */
export type ObjectSpec = { kind: ObjectKind; numbers: ObjectNumbers };

type ObjectEntry = {
  label: string;
  /** What it is called in a sentence. */
  noun: string;
  numbers: readonly ObjectNumber[];
  /** What its numbers cannot be together; `null` where they can. */
  fault?: (of: (key: string) => number) => string | null;
  panels: (of: (key: string) => number) => Panel[];
  /** What the object has without print. */
  blanks?: (of: (key: string) => number) => Blank[];
};

const number = (key: string, label: string, start: number, least = 10, most = 1500): ObjectNumber => ({
  ...{ key, label, start, least, most },
});

/** Sizes that they start with are common practice, no source. */
export const OBJECTS: Readonly<Record<ObjectKind, ObjectEntry>> = {
  cup: {
    label: 'Paper cup',
    noun: 'cup',
    numbers: [number('top', 'Top ⌀', 80), number('bottom', 'Bottom ⌀', 56), number('height', 'Height', 94)],
    panels: (of) => [roundWall('Wall', of('top'), of('bottom'), of('height'))],
    // The floor lies a little above the foot.
    blanks: (of) => [floorBlank(of('bottom') / 2, of('height') * 0.06)],
  },
  mug: {
    label: 'Mug',
    noun: 'mug',
    numbers: [
      number('top', 'Diameter', 82),
      number('height', 'Height', 95),
      number('gap', 'Left free at the handle', 36, 0, 500),
    ],
    fault: (of) =>
      of('gap') < Math.PI * of('top') - 5
        ? null
        : `The handle leaves nothing free: round the mug it is ${(Math.PI * of('top')).toFixed(0)} mm; leave less free at the handle.`,
    panels: (of) => [
      bent('Wall', of('top'), { width: Math.PI * of('top') - of('gap'), height: of('height') }),
    ],
    blanks: (of) => {
      const [radius, height] = [of('top') / 2, of('height')];
      const half = 0.5 - of('gap') / (2 * Math.PI * of('top'));
      const bare = roundBlank({ radius, y: 0 }, { radius, y: height }, half, 1 - half);
      return [floorBlank(radius, height * 0.05), ...(of('gap') > 0 ? bare : []), ...handle(radius, height)];
    },
  },
  label: {
    label: 'Label round a bottle',
    noun: 'bottle',
    numbers: [
      number('top', 'Diameter', 74),
      number('height', 'Height', 90),
      number('overlap', 'Overlap', 8, 0, 100),
    ],
    panels: (of) => {
      const [girth, height] = [Math.PI * of('top'), of('height')];
      const over = { x: girth, y: 0, width: of('overlap'), height };
      return [
        bent('Label', of('top'), { width: girth, height }),
        ...(over.width > 0 ? [rectangle('Overlap', over, null)] : []),
      ];
    },
    // The bottle that it goes round, a hair narrower.
    blanks: (of) => {
      const [radius, height] = [of('top') / 2 - 0.3, of('height')];
      const [foot, shoulder, neck] = [-height * 0.15, height * 1.2, radius * 0.38];
      const mouth = shoulder + radius * 0.9;
      return [
        ...roundBlank({ radius, y: foot }, { radius, y: shoulder }),
        ...roundBlank({ radius, y: shoulder }, { radius: neck, y: mouth }),
        ...roundBlank({ radius: neck, y: mouth }, { radius: neck, y: mouth + height * 0.35 }),
      ];
    },
  },
  box: {
    label: 'Gift box',
    noun: 'box',
    numbers: [
      number('width', 'Width', 160),
      number('depth', 'Depth', 110),
      number('height', 'Height', 80),
      number('flap', 'Flaps', 18, 5, 100),
    ],
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
  },
  bag: {
    label: 'Paper bag with gussets',
    noun: 'bag',
    numbers: [
      number('width', 'Width', 240),
      number('depth', 'Depth', 100),
      number('height', 'Height', 320),
      number('flap', 'Glued edge', 20, 5, 100),
      number('turn', 'Turned in at the top', 40, 0, 200),
    ],
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
        { x, y: 0, z },
        { x: -x, y: 0, z },
        { x: -x, y: 0, z: -z },
        { x, y: 0, z: -z },
      ];
      return [{ corners, part: 'floor' }];
    },
  },
  pouch: {
    label: 'Flat pouch',
    noun: 'pouch',
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
        rectangle('Front', { ...inner, x: seal }, side(1, seal, 0.1)),
        rectangle('Back', { ...inner, x: width + seal }, side(-1, seal, 0.1)),
      ];
    },
  },
};

/** A mug's handle at the back: a half ring of a round section. */
function handle(radius: number, height: number): Blank[] {
  const [reach, thick] = [height * 0.3, Math.max(2, height * 0.06)];
  const [bows, sides] = [16, 10];
  const on = (bow: number, side: number): Space => {
    const along = Math.PI * (bow / bows - 0.5);
    const about = (2 * Math.PI * side) / sides;
    const far = reach + thick * Math.cos(about);
    return {
      x: thick * Math.sin(about),
      y: height / 2 + far * Math.sin(along),
      z: -(radius + far * Math.cos(along) * 0.85),
    };
  };
  return Array.from({ length: bows * sides }, (_, index) => {
    const [bow, side] = [Math.floor(index / sides), index % sides];
    const corners = [on(bow + 1, side), on(bow + 1, side + 1), on(bow, side + 1), on(bow, side)];
    return { corners, part: 'handle' };
  });
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

/** The numbers that an object starts with. */
export const freshNumbers = (kind: ObjectKind): ObjectNumbers =>
  Object.fromEntries(OBJECTS[kind].numbers.map(({ key, start }) => [key, start]));

/** The cut sheet of an object, or a sentence that says why its numbers make none. Numbers that are missing are those it starts with. */
export function cutSheet({
  kind,
  numbers,
}: ObjectSpec): { ok: true; sheet: Sheet } | { ok: false; message: string } {
  const entry = OBJECTS[kind];
  const starts = freshNumbers(kind);
  const of = (key: string): number => numbers[key] ?? starts[key] ?? 0;
  for (const { key, label, least, most } of entry.numbers) {
    const value = of(key);
    if (!(value >= least && value <= most))
      return { ok: false, message: `${label} lies between ${least} and ${most} mm.` };
  }
  const fault = entry.fault?.(of) ?? null;
  return fault
    ? { ok: false, message: fault }
    : { ok: true, sheet: sheetOf(entry.panels(of), entry.blanks?.(of)) };
}

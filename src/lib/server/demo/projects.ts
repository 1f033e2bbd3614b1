import type { ShapeForm } from '../../core/geom/shapes';
import { colourFill, freshFill, type Fill, type PatternFill } from '../../core/recipe/fill';
import { freshShape, type Shape } from '../../core/recipe/layout';
import { newId } from '../repo/context';
import type { NewLayout } from '../repo/layouts';
import { COLOURS, mm, slotOf, type ColourName } from './draw';

export type DemoLayout = { page: NewLayout; shapes: (patterns: ReadonlyMap<string, string>) => Shape[] };
export type DemoProject = { name: string; layouts: DemoLayout[] };

type Box = [x: number, y: number, width: number, height: number];
type Use = {
  scale?: number;
  rotation?: number;
  offset?: [number, number];
  opacity?: number;
  ground?: ColourName | 'none';
  colours?: Partial<Record<ColourName, ColourName>>;
};
type Plan = {
  name: string;
  form: ShapeForm;
  box: Box;
  turn?: number;
  fill: [pattern: string, use?: Use] | ColourName;
};

const RECTANGLE: ShapeForm = { kind: 'rectangle', radius: 0 };
const ELLIPSE: ShapeForm = { kind: 'ellipse' };
const rounded = (radius: number): ShapeForm => ({ kind: 'rectangle', radius });

function layoutOf(page: NewLayout, factor: number, plans: Plan[]): DemoLayout {
  const scaled = (value: number): number => value * factor;
  return {
    page: { ...page, width: scaled(page.width), height: scaled(page.height) },
    shapes: (patterns) =>
      plans.map(({ name, form, box, turn, fill }) =>
        freshShape({
          id: newId(),
          name,
          form: form.kind === 'rectangle' ? { ...form, radius: scaled(form.radius) } : form,
          x: scaled(box[0]),
          y: scaled(box[1]),
          width: scaled(box[2]),
          height: scaled(box[3]),
          rotation: turn ?? 0,
          fills: [typeof fill === 'string' ? plain(fill) : used(fill[0], fill[1] ?? {}, patterns)],
        }),
      ),
  };
}

const plain = (colour: ColourName): Fill => colourFill(newId(), { colour: COLOURS[colour] });

function used(name: string, use: Use, patterns: ReadonlyMap<string, string>): PatternFill {
  const id = patterns.get(name);
  if (id === undefined) throw new Error(`The demo has no pattern named ${name}.`);
  const fill = freshFill(newId(), id);
  const scale = use.scale ?? 1;
  return {
    ...fill,
    scaleX: scale,
    scaleY: scale,
    rotation: use.rotation ?? 0,
    offset: { x: mm(use.offset?.[0] ?? 0), y: mm(use.offset?.[1] ?? 0) },
    opacity: use.opacity ?? 1,
    ground:
      use.ground === undefined
        ? { kind: 'own' }
        : use.ground === 'none'
          ? { kind: 'none' }
          : { kind: 'colour', colour: COLOURS[use.ground] },
    colours: Object.fromEntries(
      Object.entries(use.colours ?? {}).map(([from, to]) => [
        slotOf(from as ColourName),
        { colour: COLOURS[to] },
      ]),
    ),
  };
}

const px = (
  name: string,
  width: number,
  height: number,
  background: string | null = '#ffffff',
): NewLayout => ({
  name,
  width,
  height,
  measure: 'px',
  ppi: 96,
  background,
});
const print = (
  name: string,
  width: number,
  height: number,
  background: string | null = '#ffffff',
): NewLayout => ({
  name,
  width,
  height,
  measure: 'mm',
  ppi: 300,
  background,
});
const MM = mm(1);

const scallops = Array.from({ length: 12 }, (_, index): Plan => ({
  name: `Scallop ${index + 1}`,
  form: ELLIPSE,
  box: [30 + index * 95, 136, 95, 84],
  fill: index % 2 === 0 ? 'Buoy' : 'Chalk',
}));

export const DEMO_PROJECTS: DemoProject[] = [
  {
    name: 'Marrowby Lido',
    layouts: [
      layoutOf(px('Kiosk front', 1200, 520, COLOURS.Chalk), 1, [
        {
          name: 'Wall',
          form: RECTANGLE,
          box: [0, 0, 1200, 520],
          fill: ['Duckboard', { scale: 0.55, ground: 'Shallow', colours: { Rope: 'Foam', Tar: 'Shallow' } }],
        },
        {
          name: 'Canopy',
          form: RECTANGLE,
          box: [30, 24, 1140, 156],
          fill: ['Awning', { scale: 95 / mm(22), offset: [0, 0] }],
        },
        ...scallops,
        {
          name: 'Sign panel',
          form: rounded(10),
          box: [120, 262, 400, 116],
          fill: ['Lane Line', { scale: 0.55, rotation: -30, offset: [12, 4], ground: 'Foam' }],
        },
        {
          name: 'Roundel',
          form: ELLIPSE,
          box: [588, 236, 168, 168],
          fill: ['Ring Toss', { scale: 0.3, offset: [3, 8] }],
        },
        {
          name: 'Serving hatch',
          form: RECTANGLE,
          box: [824, 262, 256, 116],
          fill: ['Towel Check', { scale: 0.3, colours: { Buoy: 'Pool' } }],
        },
        { name: 'Counter', form: RECTANGLE, box: [90, 400, 1020, 16], fill: 'Deep water' },
        {
          name: 'Counter skirt',
          form: RECTANGLE,
          box: [110, 416, 980, 104],
          fill: ['Ripple Row', { scale: 0.38 }],
        },
      ]),
      layoutOf(print('Day ticket', 150, 60), MM, [
        {
          name: 'Ticket',
          form: rounded(4),
          box: [4, 4, 142, 52],
          fill: ['Ripple Row', { scale: 0.32, rotation: 12 }],
        },
        { name: 'Stub', form: RECTANGLE, box: [112, 4, 26, 52], fill: ['Ring Toss', { scale: 0.25 }] },
        { name: 'Panel', form: rounded(2), box: [12, 14, 72, 32], fill: 'Chalk' },
        {
          name: 'Security hatch',
          form: rounded(2),
          box: [12, 38, 72, 8],
          fill: ['Ticket Hatch', { scale: 0.25, opacity: 0.5 }],
        },
        {
          name: 'Sun',
          form: { kind: 'star', points: 12, inner: 0.72 },
          box: [90, 12, 16, 16],
          fill: 'Lotion',
        },
      ]),
      layoutOf(print('Beach towel', 700, 1000), MM, [
        { name: 'Towel', form: RECTANGLE, box: [0, 0, 700, 1000], fill: ['Parasol Row', { scale: 2.4 }] },
        { name: 'Top border', form: RECTANGLE, box: [0, 0, 700, 110], fill: ['Awning', { scale: 1.3 }] },
        { name: 'Lower border', form: RECTANGLE, box: [0, 890, 700, 110], fill: ['Awning', { scale: 1.3 }] },
        {
          name: 'Middle',
          form: ELLIPSE,
          box: [170, 320, 360, 360],
          fill: ['Shallow End', { scale: 0.9, rotation: 45 }],
        },
      ]),
      layoutOf(print('Tote bag', 380, 420), MM, [
        {
          name: 'Bag',
          form: rounded(6),
          box: [20, 40, 340, 360],
          fill: ['Gull Drift', { scale: 0.9, ground: 'Chalk' }],
        },
        {
          name: 'Pocket',
          form: rounded(6),
          box: [100, 210, 180, 150],
          fill: ['Cold Steps', { scale: 0.6, rotation: 45 }],
        },
        {
          name: 'Badge',
          form: { kind: 'star', points: 16, inner: 0.86 },
          box: [150, 90, 80, 80],
          fill: ['Awning', { scale: 0.25, rotation: 45 }],
        },
      ]),
      layoutOf(px('Locker doors', 1080, 1080, COLOURS.Foam), 1, [
        {
          name: 'Wall',
          form: RECTANGLE,
          box: [0, 0, 1080, 1080],
          fill: ['Shallow End', { scale: 0.5, colours: { Pool: 'Foam', 'Deep water': 'Shallow' } }],
        },
        {
          name: 'Lockers',
          form: rounded(18),
          box: [140, 180, 800, 760],
          fill: ['Locker Grid', { scale: 0.96, offset: [0.3, 0.3] }],
        },
        { name: 'Bench', form: rounded(8), box: [90, 900, 900, 70], fill: ['Duckboard', { scale: 0.9 }] },
      ]),
    ],
  },
  {
    name: 'Fennick Night Ferry',
    layouts: [
      layoutOf(print('Cabin card', 85.6, 53.98, COLOURS.Night), MM, [
        { name: 'Card', form: rounded(3), box: [0, 0, 85.6, 53.98], fill: ['Night Wake', { scale: 0.28 }] },
        {
          name: 'Porthole',
          form: ELLIPSE,
          box: [52, 12, 28, 28],
          fill: ['Porthole', { scale: 0.19, rotation: 15 }],
        },
        { name: 'Strip', form: RECTANGLE, box: [0, 42, 46, 6], fill: ['Rope Twist', { scale: 0.22 }] },
      ]),
      layoutOf(print('Deck blanket', 1300, 900), MM, [
        { name: 'Blanket', form: rounded(20), box: [0, 0, 1300, 900], fill: ['Deck Stripe', { scale: 2.2 }] },
        {
          name: 'Field',
          form: RECTANGLE,
          box: [180, 150, 940, 600],
          fill: [
            'Ring Toss',
            {
              scale: 1.4,
              rotation: 45,
              ground: 'Deep water',
              colours: { 'Deep water': 'Buoy', Buoy: 'Lotion' },
            },
          ],
        },
        { name: 'Cord', form: RECTANGLE, box: [180, 128, 940, 22], fill: ['Rope Twist', { scale: 1.1 }] },
        {
          name: 'Lower cord',
          form: RECTANGLE,
          box: [180, 750, 940, 22],
          fill: ['Rope Twist', { scale: 1.1 }],
        },
      ]),
      layoutOf(print('Timetable cover', 148, 210, COLOURS['Deep water']), MM, [
        {
          name: 'Sky',
          form: RECTANGLE,
          box: [0, 0, 148, 120],
          fill: [
            'Gull Drift',
            { scale: 0.45, ground: 'Night', colours: { Slate: 'Rope', Shallow: 'Deep water' } },
          ],
        },
        { name: 'Moon', form: ELLIPSE, box: [92, 18, 36, 36], fill: 'Lotion' },
        { name: 'Sea', form: RECTANGLE, box: [0, 108, 148, 102], fill: ['Harbour Scales', { scale: 0.55 }] },
        {
          name: 'Hull',
          form: { kind: 'polygon', sides: 3 },
          box: [24, 84, 100, 28],
          turn: 180,
          fill: ['Deck Stripe', { scale: 0.2 }],
        },
      ]),
    ],
  },
  {
    name: 'Lantern Row Book Fair',
    layouts: [
      layoutOf(print('Poster', 297, 420, COLOURS.Chalk), MM, [
        {
          name: 'Evening',
          form: RECTANGLE,
          box: [0, 0, 297, 290],
          fill: ['Lantern String', { scale: 0.85, offset: [4, 0] }],
        },
        { name: 'Table', form: RECTANGLE, box: [0, 262, 297, 158], fill: ['Open Pages', { scale: 0.6 }] },
        {
          name: 'Seal',
          form: { kind: 'star', points: 20, inner: 0.88 },
          box: [98, 196, 100, 100],
          fill: 'Buoy',
        },
        {
          name: 'Seal centre',
          form: ELLIPSE,
          box: [110, 208, 76, 76],
          fill: ['Open Pages', { scale: 0.3, rotation: -15, ground: 'Lotion' }],
        },
      ]),
      layoutOf(print('Wrapping sheet', 500, 700, COLOURS.Lotion), MM, [
        {
          name: 'Sheet',
          form: RECTANGLE,
          box: [0, 0, 500, 700],
          fill: ['Fair Confetti', { scale: 1.1, rotation: -20, colours: { Lotion: 'Chalk' } }],
        },
        {
          name: 'Band',
          form: RECTANGLE,
          box: [0, 300, 500, 100],
          fill: [
            'Lane Line',
            { scale: 0.9, ground: 'Plum', colours: { Pool: 'Rope', 'Deep water': 'Lotion' } },
          ],
        },
      ]),
    ],
  },
];

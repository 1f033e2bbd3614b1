import { mm, COLOURS } from './draw';
import { ELLIPSE, layoutOf, print, px, RECTANGLE, rounded, type DemoProject, type Plan } from './layout-plan';

const MM = mm(1);

const scallops = Array.from({ length: 12 }, (_, index): Plan => ({
  name: `Scallop ${index + 1}`,
  form: ELLIPSE,
  box: [30 + index * 95, 136, 95, 84],
  fill: index % 2 === 0 ? 'Buoy' : 'Chalk',
  group: 'Scallops',
}));

/** Marrowby Lido: an open-air swimming pool with a kiosk. */
export const LIDO: DemoProject = {
  name: 'Marrowby Lido',
  layouts: [
    layoutOf(print('Morning lengths', 297, 420, COLOURS['Deep water'], { bleed: 3, margin: 12 }), MM, [
      {
        name: 'Water',
        form: RECTANGLE,
        box: [-3, -3, 303, 426],
        fill: [
          { picture: 'pool' },
          [
            'Ring Toss',
            {
              scale: 0.9,
              rotation: 18,
              ground: 'none',
              opacity: 0.35,
              blend: 'screen',
              wash: {
                stops: [
                  ['Lotion', 0],
                  ['Foam', 0.45],
                  ['Shallow', 1],
                ],
              },
              mask: {
                rub: [
                  {
                    along: [
                      [196, 286],
                      [200, 292],
                    ],
                    size: 210,
                    softness: 0.75,
                  },
                  {
                    along: [
                      [30, 60],
                      [270, 60],
                    ],
                    size: 96,
                    softness: 0.9,
                  },
                ],
              },
            },
          ],
          {
            gradient: {
              stops: [
                ['Night', 0, 0.1],
                ['Night', 0.55, 0],
                ['Night', 1, 0.75],
              ],
            },
            blend: 'multiply',
          },
        ],
      },
      {
        name: 'Shadow',
        form: {
          brush: [
            [0, 0],
            [70, 6],
          ],
          size: 66,
          softness: 1,
        },
        box: [158, 352, 120, 40],
        fill: [
          {
            gradient: {
              stops: [
                ['Night', 0, 0.62],
                ['Night', 1, 0.62],
              ],
            },
            blend: 'multiply',
          },
        ],
      },
      { name: 'Ball', form: RECTANGLE, box: [122, 216, 150, 150], fill: { picture: 'ball' } },
      {
        name: 'Morning',
        form: { text: 'MORNING', font: 'Limelight' },
        box: [22, 30, 250, 36],
        fill: 'Chalk',
        group: 'Title',
      },
      {
        name: 'Lengths',
        form: { text: 'LENGTHS', font: 'Limelight' },
        box: [22, 74, 250, 36],
        fill: 'Lotion',
        group: 'Title',
      },
      {
        name: 'When',
        form: { text: 'Every day from seven', font: 'Caveat Brush' },
        box: [24, 124, 160, 13],
        fill: 'Chalk',
        group: 'Title',
      },
      {
        name: 'Foot',
        form: RECTANGLE,
        box: [-3, 392, 303, 31],
        fill: ['Awning', { scale: 0.42 }],
      },
      {
        name: 'Where',
        form: { text: 'Marrowby Lido', font: 'Limelight' },
        box: [24, 362, 110, 12],
        fill: 'Chalk',
      },
    ]),
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
        fill: [
          ['Awning', { scale: 95 / mm(22), offset: [0, 0] }],
          {
            gradient: {
              stops: [
                ['Night', 0, 0.28],
                ['Night', 0.5, 0],
                ['Night', 1, 0.16],
              ],
            },
            blend: 'multiply',
          },
        ],
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
        stroke: { width: 12, fill: ['Rope Twist', { scale: 0.2 }] },
      },
      {
        name: 'Serving hatch',
        form: RECTANGLE,
        box: [824, 262, 256, 116],
        fill: ['Towel Check', { scale: 0.3, colours: { Buoy: 'Pool' } }],
      },
      {
        name: 'Sign board',
        form: rounded(6),
        box: [236, 288, 168, 64],
        fill: 'Chalk',
        stroke: { width: 4, fill: 'Deep water' },
        group: 'Sign',
      },
      {
        name: 'Sign',
        form: { text: 'KIOSK', font: 'Limelight', centred: true },
        box: [236, 302, 168, 36],
        fill: 'Deep water',
        group: 'Sign',
      },
      { name: 'Counter', form: RECTANGLE, box: [90, 400, 1020, 16], fill: 'Deep water' },
      {
        name: 'Counter skirt',
        form: RECTANGLE,
        box: [110, 416, 980, 104],
        fill: ['Ripple Row', { scale: 0.38 }],
      },
    ]),
    layoutOf(print('Day ticket', 150, 60, COLOURS.Chalk, { bleed: 3, margin: 4 }), MM, [
      {
        name: 'Water',
        form: RECTANGLE,
        box: [-3, -3, 117, 66],
        fill: [
          ['Ripple Row', { scale: 0.32, rotation: 12, onPage: true }],
          {
            gradient: {
              from: [0, 0],
              to: [1, 0],
              stops: [
                ['Deep water', 0, 0.55],
                ['Deep water', 0.75, 0],
              ],
            },
            blend: 'multiply',
          },
        ],
      },
      {
        name: 'Stub',
        form: RECTANGLE,
        box: [114, -3, 39, 66],
        fill: [
          'Ripple Row',
          {
            scale: 0.32,
            rotation: 12,
            onPage: true,
            ground: 'Buoy',
            colours: { Pool: 'Lotion', Shallow: 'Chalk' },
          },
        ],
      },
      {
        name: 'Perforation',
        form: RECTANGLE,
        box: [114, -4, 0.01, 68],
        fill: [],
        stroke: { width: 0.7, fill: 'Chalk', dashes: [0.01, 1.8], cap: 'round' },
      },
      {
        name: 'Sun',
        form: { kind: 'star', points: 16, inner: 0.74 },
        box: [88, 7, 20, 20],
        fill: [
          {
            gradient: {
              from: [0.4, 0.4],
              to: [1, 0.5],
              round: true,
              stops: [
                ['Chalk', 0],
                ['Lotion', 0.5],
                ['Buoy', 1],
              ],
            },
          },
        ],
      },
      {
        name: 'Title',
        form: { text: 'DAY TICKET', font: 'Limelight' },
        box: [10, 15, 66, 9],
        fill: 'Chalk',
        group: 'Words',
      },
      {
        name: 'Place',
        form: { text: 'Marrowby Lido', font: 'Caveat Brush' },
        box: [10.5, 31, 50, 7.5],
        fill: 'Lotion',
        group: 'Words',
      },
      {
        name: 'Season',
        form: { text: 'May to September, 7 to 20', font: 'Schibsted Grotesk' },
        box: [10.5, 46, 60, 3],
        fill: 'Foam',
        group: 'Words',
      },
      {
        name: 'Number',
        form: { text: '0417', font: 'Spline Sans Mono' },
        box: [123, 27, 24, 6],
        turn: 90,
        fill: 'Night',
      },
    ]),
    layoutOf(print('Beach towel', 700, 1000), MM, [
      {
        name: 'Towel',
        form: RECTANGLE,
        box: [0, 0, 700, 1000],
        fill: [
          'Parasol Row',
          {
            scale: 2.4,
            wash: {
              stops: [
                ['Plum', 0, 0.62],
                ['Buoy', 0.45, 0.3],
                ['Lotion', 0.75, 0],
              ],
            },
          },
        ],
      },
      { name: 'Top border', form: RECTANGLE, box: [0, 0, 700, 110], fill: ['Awning', { scale: 1.3 }] },
      {
        name: 'Lower border',
        form: RECTANGLE,
        box: [0, 890, 700, 110],
        fill: ['Awning', { scale: 1.3, reflect: 'down' }],
      },
      {
        name: 'Middle',
        form: ELLIPSE,
        box: [150, 300, 400, 400],
        fill: ['Shallow End', { scale: 0.9, rotation: 45 }],
        stroke: { width: 34, fill: ['Rope Twist', { scale: 1.6 }] },
      },
      {
        name: 'Name',
        form: { text: 'Marrowby', font: 'Caveat Brush', centred: true },
        box: [150, 452, 400, 96],
        turn: -8,
        fill: 'Chalk',
        stroke: { width: 3, fill: 'Deep water' },
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
        name: 'Wave',
        form: {
          brush: Array.from({ length: 46 }, (_, index) => [index * 6, 26 * Math.sin(index / 7)]),
          size: 64,
          softness: 0.3,
        },
        box: [56, 354, 270, 64],
        fill: ['Ripple Row', { scale: 0.7, rotation: -8 }],
      },
      {
        name: 'Pocket',
        form: rounded(6),
        box: [110, 190, 160, 130],
        fill: ['Cold Steps', { scale: 0.6, rotation: 45 }],
        stroke: { width: 3, fill: 'Buoy', dashes: [7, 4] },
      },
      {
        name: 'Badge',
        form: { kind: 'star', points: 16, inner: 0.86 },
        box: [140, 72, 100, 100],
        fill: [
          ['Awning', { scale: 0.3, rotation: 45 }],
          {
            gradient: {
              from: [0.5, 0.5],
              to: [1, 0.5],
              round: true,
              stops: [
                ['Chalk', 0, 0.9],
                ['Chalk', 0.62, 0.9],
                ['Chalk', 0.64, 0],
              ],
            },
          },
        ],
      },
      {
        name: 'Badge word',
        form: { text: 'LIDO', font: 'Limelight', centred: true },
        box: [140, 114, 100, 16],
        fill: 'Deep water',
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
    layoutOf(print('Winter swim', 297, 420, COLOURS.Night, { bleed: 3, margin: 12 }), MM, [
      {
        name: 'Slipway',
        form: RECTANGLE,
        box: [-3, -3, 303, 426],
        fill: [
          ['Slipway Pebbles', { scale: 1.15 }],
          {
            gradient: {
              from: [0.5, 0],
              to: [0.5, 1],
              stops: [
                ['Night', 0, 0.05],
                ['Night', 0.55, 0.25],
                ['Night', 1, 0.92],
              ],
            },
            blend: 'multiply',
          },
        ],
      },
      {
        name: 'Sun',
        form: ELLIPSE,
        box: [48, 56, 201, 201],
        fill: ['Pebble Star', { scale: 0.92, rotation: 15 }],
        stroke: { width: 5, fill: 'Chalk' },
      },
      {
        name: 'Swim',
        form: { text: 'Winter swim', font: 'Limelight', centred: true },
        box: [36, 303, 225, 27],
        fill: 'Chalk',
      },
      {
        name: 'When',
        form: { text: 'First Sunday of the month, at high water', font: 'Bitter', centred: true },
        box: [40, 350, 217, 11],
        fill: 'Lotion',
      },
      {
        name: 'Edge',
        form: RECTANGLE,
        box: [-3, 392, 303, 31],
        fill: ['Pebble Rosette', { scale: 0.24 }],
      },
    ]),
  ],
};

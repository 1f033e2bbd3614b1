import { mm, COLOURS } from './draw';
import { ELLIPSE, layoutOf, print, RECTANGLE, type DemoProject } from './layout-plan';

const MM = mm(1);

/** Lantern Row Book Fair: a street fair. */
export const FAIR: DemoProject = {
  name: 'Lantern Row Book Fair',
  layouts: [
    layoutOf(print('Poster', 297, 420, COLOURS.Chalk), MM, [
      {
        name: 'Evening',
        form: RECTANGLE,
        box: [0, 0, 297, 290],
        fill: [
          'Plum',
          [
            'Lantern String',
            {
              scale: 0.85,
              offset: [4, 0],
              mask: {
                rub: [
                  {
                    along: [
                      [40, 122],
                      [257, 122],
                    ],
                    size: 118,
                    softness: 0.85,
                    strength: 0.96,
                  },
                ],
              },
            },
          ],
          {
            gradient: {
              from: [0.5, 0.9],
              to: [1.1, 0.6],
              round: true,
              stops: [
                ['Lotion', 0, 0.75],
                ['Buoy', 0.5, 0.3],
                ['Night', 1, 0],
              ],
            },
            blend: 'screen',
          },
        ],
      },
      {
        name: 'Book',
        form: { text: 'BOOK FAIR', font: 'Limelight', centred: true },
        box: [20, 92, 257, 34],
        fill: 'Chalk',
        stroke: { width: 1.2, fill: 'Plum' },
      },
      {
        name: 'Row',
        form: { text: 'Lantern Row, three evenings', font: 'Caveat Brush', centred: true },
        box: [40, 138, 217, 14],
        fill: 'Lotion',
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
        stroke: { width: 3, fill: 'Chalk', dashes: [0.01, 5], cap: 'round' },
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
        stroke: { width: 6, fill: 'Chalk' },
        fill: [
          'Lane Line',
          { scale: 0.9, ground: 'Plum', colours: { Pool: 'Rope', 'Deep water': 'Lotion' } },
        ],
      },
    ]),
  ],
};

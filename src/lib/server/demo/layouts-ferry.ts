import { mm, COLOURS } from './draw';
import { ELLIPSE, layoutOf, print, RECTANGLE, rounded, type DemoProject } from './layout-plan';

const MM = mm(1);

/** Fennick Night Ferry: a small overnight boat line. */
export const FERRY: DemoProject = {
  name: 'Fennick Night Ferry',
  layouts: [
    layoutOf(print('Cabin card', 85.6, 53.98, COLOURS.Night, { margin: 4 }), MM, [
      {
        name: 'Card',
        form: rounded(3),
        box: [0, 0, 85.6, 53.98],
        fill: [
          'Night',
          [
            'Night Wake',
            {
              scale: 0.28,
              mask: {
                from: [0, 0.5],
                to: [1, 0.5],
                stops: [
                  ['Night', 0, 0.12],
                  ['Night', 0.4, 0.35],
                  ['Night', 1, 1],
                ],
              },
            },
          ],
        ],
      },
      {
        name: 'Porthole',
        form: ELLIPSE,
        box: [52, 10, 28, 28],
        fill: [
          { picture: 'dusk' },
          ['Porthole', { scale: 0.19, rotation: 15, ground: 'none', opacity: 0.2 }],
        ],
        stroke: { width: 2.6, fill: ['Rope Twist', { scale: 0.1 }] },
      },
      { name: 'Cabin', form: { text: 'Cabin', font: 'Caveat Brush' }, box: [7, 9, 20, 5], fill: 'Rope' },
      { name: 'Number', form: { text: '214', font: 'Limelight' }, box: [7, 18, 34, 13], fill: 'Chalk' },
      { name: 'Strip', form: RECTANGLE, box: [0, 42, 85.6, 6], fill: ['Rope Twist', { scale: 0.22 }] },
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
    layoutOf(print('Timetable cover', 148, 210, COLOURS['Deep water'], { bleed: 3, margin: 8 }), MM, [
      {
        name: 'Dusk',
        form: RECTANGLE,
        box: [-3, -3, 154, 154],
        fill: [
          { picture: 'dusk' },
          [
            'Gull Drift',
            {
              scale: 0.4,
              ground: 'none',
              opacity: 0.2,
              colours: { Slate: 'Chalk', Shallow: 'Chalk' },
              mask: {
                stops: [
                  ['Night', 0.2, 1],
                  ['Night', 0.5, 0],
                ],
              },
            },
          ],
        ],
      },
      {
        name: 'Sea',
        form: RECTANGLE,
        box: [-3, 124, 154, 89],
        fill: [
          'Harbour Scales',
          {
            scale: 0.55,
            mask: {
              stops: [
                ['Night', 0.3, 0],
                ['Night', 0.75, 1],
              ],
            },
          },
        ],
      },
      {
        name: 'Line',
        form: { text: 'NIGHT FERRY', font: 'Limelight', centred: true },
        box: [10, 126, 128, 12],
        fill: 'Chalk',
        group: 'Words',
      },
      {
        name: 'Season',
        form: { text: 'Winter timetable', font: 'Caveat Brush', centred: true },
        box: [30, 145, 88, 8],
        fill: 'Lotion',
        group: 'Words',
      },
      { name: 'Band', form: RECTANGLE, box: [-3, 188, 154, 8], fill: ['Rope Twist', { scale: 0.26 }] },
    ]),
  ],
};

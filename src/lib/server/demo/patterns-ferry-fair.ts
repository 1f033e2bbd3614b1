import {
  BRICK,
  HALF_DROP,
  at,
  block,
  dot,
  drawing,
  filled,
  form,
  measured,
  raised,
  ringPiece,
  stroked,
  wave,
  type DemoPattern,
} from './draw';

export const FERRY_AND_FAIR: DemoPattern[] = [
  {
    name: 'Night Wake',
    description: 'Deck lights on the wake behind the ferry.',
    plan: {
      width: 64,
      height: 32,
      ground: 'Night',
      colours: ['Lotion', 'Chalk', 'Pool', 'Night'],
      motifs: [
        drawing('wake', 'Wake', 64, 14, [stroked(wave(64, 6), 'Lotion', 1.2)]),
        drawing('swell', 'Swell', 64, 14, [stroked(wave(64, -6), 'Lotion', 1.2)]),
        drawing('deep', 'Deep swell', 64, 14, [stroked(wave(64, 6), 'Pool', 0.8)]),
        dot('light', 'Light', 3.4, 'Chalk'),
      ],
      placings: [
        at('wake', 32, 10),
        at('swell', 32, 10),
        at('deep', 32, 26),
        at('light', 0, 10),
        at('light', 32, 10),
        at('light', 16, 26, 0, 0.6),
      ],
    },
  },
  {
    name: 'Rope Twist',
    description: 'Mooring rope, tightly laid.',
    plan: {
      width: 26,
      height: 13,
      repeat: BRICK,
      ground: 'Tar',
      colours: ['Rope', 'Chalk', 'Tar'],
      motifs: [
        drawing('strand', 'Strand', 26, 13, [
          filled(
            'M -12.4 5.6 C -9 -1 -2 -6.4 6 -6.4 C 10 -6.4 12.6 -6 12.4 -5.6 C 9 1 2 6.4 -6 6.4 C -10 6.4 -12.6 6 -12.4 5.6 Z',
            'Rope',
          ),
          stroked('M -8 4 C -5 -0.6 0 -3.8 6 -4', 'Chalk', 0.8, 'round'),
        ]),
      ],
      placings: [at('strand', 13, 6.5)],
    },
  },
  {
    name: 'Porthole',
    description: 'Brass and glass along the hull.',
    plan: {
      width: 54,
      height: 54,
      repeat: HALF_DROP,
      ground: 'Deep water',
      colours: ['Rope', 'Shallow', 'Foam', 'Night', 'Deep water'],
      motifs: [
        raised(dot('rim', 'Rim', 36, 'Rope'), 0.8, 'Night'),
        dot('seal', 'Seal', 28, 'Night'),
        dot('glass', 'Glass', 25, 'Shallow'),
        drawing('gleam', 'Gleam', 14, 10, [stroked('M -7 4 C -6 -1 -1 -5 6 -5', 'Foam', 2.2, 'round')]),
        dot('rivet', 'Rivet', 2.4, 'Night'),
      ],
      placings: [
        at('rim', 27, 27),
        at('seal', 27, 27),
        at('glass', 27, 27),
        at('gleam', 24, 23),
        ...[0, 60, 120, 180, 240, 300].map((angle) => {
          const turn = (angle * Math.PI) / 180;
          return at(
            'rivet',
            Number((27 + 16 * Math.cos(turn)).toFixed(3)),
            Number((27 + 16 * Math.sin(turn)).toFixed(3)),
          );
        }),
      ],
    },
  },
  {
    name: 'Deck Stripe',
    description: 'Blanket stripes, wide and narrow.',
    plan: measured('bands', {
      numbers: { angle: 0 },
      bands: [
        [6, null],
        [20, 'Deep water'],
        [7, null],
        [2, 'Rope'],
        [3, null],
        [4, 'Buoy'],
        [3, null],
        [2, 'Rope'],
        [5, null],
        [4, 'Buoy'],
        [4, null],
      ],
      ground: 'Chalk',
    }),
  },
  {
    name: 'Lantern String',
    description: 'Paper lanterns over the row.',
    plan: {
      width: 70,
      height: 88,
      ground: 'Plum',
      colours: ['Lotion', 'Buoy', 'Chalk', 'Plum'],
      motifs: [
        drawing('wire', 'Wire', 70, 12, [stroked('M -35 -6 C -20 9 20 9 35 -6', 'Chalk', 0.9)]),
        drawing('lantern', 'Lantern', 24, 36, [
          stroked('M 0 -20 L 0 -14', 'Chalk', 0.9),
          filled(
            'M -4 -15 L 4 -15 L 4 -12.5 C 10 -10 11.5 -4 11.5 0 C 11.5 4 10 10 4 12.5 L 4 15 L -4 15 L -4 12.5 C -10 10 -11.5 4 -11.5 0 C -11.5 -4 -10 -10 -4 -12.5 Z',
            'Lotion',
          ),
          filled('M -10.6 -5.4 L 10.6 -5.4 L 11.1 -3.2 L -11.1 -3.2 Z', 'Buoy'),
          filled('M -11.1 3.2 L 11.1 3.2 L 10.6 5.4 L -10.6 5.4 Z', 'Buoy'),
          stroked('M 0 15 L 0 20', 'Buoy', 1.4, 'round'),
        ]),
        dot('spark', 'Spark', 2.6, 'Chalk'),
      ],
      placings: [
        at('wire', 35, 8),
        at('lantern', 35, 33),
        at('wire', 70, 52),
        at('lantern', 70, 77),
        at('spark', 14, 30),
        at('spark', 56, 30),
        at('spark', 21, 74),
        at('spark', 49, 74),
      ],
    },
  },
  {
    name: 'Paper Star',
    description: 'One folded strip in the plane group p4g; the fair’s kaleidoscope.',
    plan: {
      width: 60,
      height: 60,
      repeat: { kind: 'group', group: 'p4gm', slant: 0 },
      ground: 'Plum',
      fade: {
        along: 'round',
        stops: [
          [0, 'Buoy'],
          [1, 'Plum'],
        ],
      },
      colours: ['Lotion', 'Chalk', 'Buoy', 'Plum'],
      motifs: [
        drawing('fold', 'Fold', 20, 12, [
          filled('M -10 5 L 8 -6 L 10 0 L -4 6 Z', 'Lotion'),
          filled('M -10 5 L 8 -6 L 2 0.6 Z', 'Chalk'),
        ]),
        form('spot', 'Spot', { kind: 'polygon', sides: 6 }, 4, 4, 'Chalk'),
      ],
      placings: [at('fold', 14, 7, 10), at('spot', 5.5, 18)],
    },
  },
  {
    name: 'Open Pages',
    description: 'Books face down on the table, in brick.',
    plan: {
      width: 56,
      height: 42,
      repeat: BRICK,
      ground: 'Chalk',
      colours: ['Plum', 'Buoy', 'Rope', 'Chalk'],
      motifs: [
        drawing('book', 'Book', 40, 24, [
          filled(
            'M 0 -7 C -5 -11.5 -13 -12 -20 -10 L -20 8 C -13 6 -5 6.5 0 11 C 5 6.5 13 6 20 8 L 20 -10 C 13 -12 5 -11.5 0 -7 Z',
            'Plum',
          ),
          stroked('M -3 -4 C -7 -7 -12 -7.6 -16.5 -6.6', 'Chalk', 1, 'round'),
          stroked('M -3 0 C -7 -3 -12 -3.6 -16.5 -2.6', 'Chalk', 1, 'round'),
          stroked('M 3 -4 C 7 -7 12 -7.6 16.5 -6.6', 'Chalk', 1, 'round'),
          stroked('M 3 0 C 7 -3 12 -3.6 16.5 -2.6', 'Chalk', 1, 'round'),
          stroked('M 0 -6.6 L 0 10', 'Rope', 1.2),
        ]),
        form('mark', 'Bookmark', { kind: 'star', points: 4, inner: 0.4 }, 7, 7, 'Buoy'),
      ],
      placings: [at('book', 28, 20), at('mark', 28, 39), at('mark', 0, 20, 45, 0.7)],
    },
  },
  {
    name: 'Fair Confetti',
    description: 'Paper bits after closing time; no ground of its own.',
    plan: {
      width: 90,
      height: 70,
      repeat: { kind: 'brick', step: 1 / 3, run: 'progressive' },
      ground: null,
      colours: ['Buoy', 'Lotion', 'Plum', 'Pool'],
      motifs: [
        form('star', 'Star', { kind: 'star', points: 5, inner: 0.45 }, 9, 9, 'Lotion'),
        form('bit', 'Three-corner', { kind: 'polygon', sides: 3 }, 7, 6, 'Buoy'),
        block('strip', 'Strip', 10, 2.4, 'Plum', 1.2),
        dot('dot', 'Dot', 4.4, 'Pool'),
      ],
      placings: [at('star', 12, 12, 14, 1.2)],
      scatter: {
        motifs: ['star', 'strip', 'bit', 'dot', 'strip', 'dot'],
        count: 40,
        seed: 9,
        spacing: 2.2,
        size: { from: 0.55, to: 1 },
        angle: { from: 0, to: 360 },
      },
    },
  },
  {
    name: 'Ticket Hatch',
    description: 'A fine diagonal line for the back of tickets: 1 pt every 4 pt at 45°.',
    plan: measured('hatch', {
      numbers: { width: 1, pitch: 4, angle: -45 },
      inks: ['Deep water', 'Deep water'],
      ground: null,
      measure: 'pt',
    }),
  },
  {
    name: 'Cabin Wave',
    description: 'Even waves for linings and envelopes.',
    plan: measured('wave', {
      numbers: { length: 24, height: 6, width: 1.6, pitch: 8, angle: 0 },
      inks: ['Foam'],
      ground: 'Deep water',
    }),
  },
  {
    name: 'Harbour Scales',
    description: 'Overlapping scales, the front row over the one behind.',
    plan: {
      width: 36,
      height: 18,
      repeat: BRICK,
      ground: 'Night',
      colours: ['Pool', 'Foam', 'Deep water', 'Night'],
      motifs: [
        drawing('scale', 'Scale', 36, 36, [
          filled(ringPiece(0, 18, 0, 359.99), 'Deep water'),
          filled(ringPiece(0, 16.4, 0, 359.99), 'Foam'),
          filled(ringPiece(0, 14.6, 0, 359.99), 'Pool'),
          filled(ringPiece(0, 7, 0, 359.99), 'Deep water'),
        ]),
      ],
      placings: [at('scale', 18, 18)],
    },
  },
];

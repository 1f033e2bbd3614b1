import {
  BRICK,
  HALF_DROP,
  at,
  block,
  dot,
  drawing,
  filled,
  form,
  line,
  measured,
  ringPiece,
  stroked,
  type DemoPattern,
} from './draw';

/** More stock: drawn motifs, and measured kinds that the first dozen leaves out. */
export const STOCK_DRAWN: DemoPattern[] = [
  {
    name: 'Even wave',
    description: 'A wave line of 1.5 mm, one above the other.',
    plan: measured('wave', {
      numbers: { length: 24, height: 6, width: 1.5, pitch: 8 },
      inks: ['Pool'],
      ground: 'Foam',
    }),
  },
  {
    name: 'Kite diamonds',
    description: 'Diamonds that leave a narrow lane between them.',
    plan: measured('diamond', {
      numbers: { across: 12, down: 18, size: 0.82 },
      inks: ['Moss'],
      ground: 'Chalk',
    }),
  },
  {
    name: 'Boardwalk',
    description: 'Planks of 60 × 8 mm, each row shifted by a third.',
    plan: measured('planks', {
      numbers: { length: 60, height: 8, joint: 0.8, angle: 0 },
      inks: ['Rope'],
      ground: 'Tar',
    }),
  },
  {
    name: 'Slant rain',
    description: 'Round dashes at 65°.',
    plan: measured('dashes', {
      numbers: { length: 7, space: 6, width: 1.2, pitch: 5, step: 0.5, angle: 65 },
      choices: { cap: 'round' },
      inks: ['Deep water'],
      ground: null,
    }),
  },
  {
    name: 'Plus marks',
    description: 'Small crosses on a grid of 12 mm; clear, for any ground.',
    plan: {
      width: 12,
      height: 12,
      ground: null,
      colours: ['Slate'],
      motifs: [
        drawing('plus', 'Plus', 5, 5, [
          filled(
            'M -0.6 -2.5 L 0.6 -2.5 L 0.6 -0.6 L 2.5 -0.6 L 2.5 0.6 L 0.6 0.6 L 0.6 2.5 L -0.6 2.5 L -0.6 0.6 L -2.5 0.6 L -2.5 -0.6 L -0.6 -0.6 Z',
            'Slate',
          ),
        ]),
      ],
      placings: [at('plus', 6, 6)],
    },
  },
  {
    name: 'Four-petal',
    description: 'Petals on the diagonals, a dot in each middle.',
    plan: {
      width: 22,
      height: 22,
      ground: 'Chalk',
      colours: ['Plum', 'Lotion', 'Chalk'],
      motifs: [
        drawing('petal', 'Petal', 9, 5, [
          filled('M -4.6 0 C -2.4 -3.2 2.4 -3.2 4.6 0 C 2.4 3.2 -2.4 3.2 -4.6 0 Z', 'Plum'),
        ]),
        dot('eye', 'Eye', 2.6, 'Lotion'),
      ],
      placings: [
        at('petal', 15.4, 15.4, 45),
        at('petal', 6.6, 6.6, 45),
        at('petal', 15.4, 6.6, -45),
        at('petal', 6.6, 15.4, -45),
        at('eye', 11, 11),
        at('eye', 0, 0),
      ],
    },
  },
  {
    name: 'Half moons',
    description: 'Half discs that turn their backs on each other, in brick.',
    plan: {
      width: 18,
      height: 12,
      repeat: BRICK,
      ground: 'Night',
      colours: ['Lotion', 'Night'],
      motifs: [drawing('moon', 'Moon', 14, 7, [filled(ringPiece(0, 7, 180, 360), 'Lotion')])],
      placings: [at('moon', 9, 6)],
    },
  },
  {
    name: 'Sprig',
    description: 'A stem with three pairs of leaves, in half-drop.',
    plan: {
      width: 26,
      height: 34,
      repeat: HALF_DROP,
      ground: 'Foam',
      colours: ['Moss', 'Foam'],
      motifs: [
        drawing('sprig', 'Sprig', 16, 26, [
          stroked('M 0 13 C -1 6 1 -2 0 -12', 'Moss', 0.9, 'round'),
          ...[9, 2, -5].flatMap((y) => [
            filled(
              `M 0 ${y} C 2 ${y - 4} 6 ${y - 5} 8 ${y - 4.6} C 7.4 ${y - 2} 4 ${y + 0.4} 0 ${y} Z`,
              'Moss',
            ),
            filled(
              `M 0 ${y} C -2 ${y - 4} -6 ${y - 5} -8 ${y - 4.6} C -7.4 ${y - 2} -4 ${y + 0.4} 0 ${y} Z`,
              'Moss',
            ),
          ]),
        ]),
      ],
      placings: [at('sprig', 13, 17, 14)],
    },
  },
  {
    name: 'Basket weave',
    description: 'Three slats across, three down, turn by turn.',
    plan: {
      width: 30,
      height: 30,
      ground: 'Tar',
      colours: ['Rope', 'Tar'],
      motifs: [block('slat', 'Slat', 14.4, 4.2, 'Rope', 0.6)],
      placings: [
        ...[2.5, 7.5, 12.5].flatMap((step) => [at('slat', 7.5, step), at('slat', 22.5, 15 + step)]),
        ...[17.5, 22.5, 27.5].map((x) => at('slat', x, 7.5, 90)),
        ...[2.5, 7.5, 12.5].map((x) => at('slat', x, 22.5, 90)),
      ],
    },
  },
  {
    name: 'Loose stars',
    description: 'Stars of two sizes strewn by chance, none too near another.',
    plan: {
      width: 70,
      height: 70,
      ground: 'Deep water',
      colours: ['Foam', 'Deep water'],
      motifs: [form('star', 'Star', { kind: 'star', points: 5, inner: 0.45 }, 6, 6, 'Foam')],
      placings: [],
      scatter: {
        motifs: ['star'],
        count: 30,
        spacing: 2,
        seed: 12,
        size: { from: 0.6, to: 1.2 },
        angle: { from: 0, to: 72 },
      },
    },
  },
  {
    name: 'Bracket lace',
    description: 'Arcs over arcs with a bead where they meet.',
    plan: {
      width: 20,
      height: 14,
      repeat: BRICK,
      ground: 'Plum',
      colours: ['Lotion', 'Plum'],
      motifs: [
        drawing('arc', 'Arc', 20, 10, [stroked('M -10 5 C -10 -8.3 10 -8.3 10 5', 'Lotion', 0.9)]),
        drawing('arc-in', 'Inner arc', 12, 6, [stroked('M -6 5 C -6 -3 6 -3 6 5', 'Lotion', 0.6)]),
        dot('bead', 'Bead', 2.2, 'Lotion'),
      ],
      placings: [at('arc', 10, 7), at('arc-in', 10, 7), at('bead', 10, 12)],
    },
  },
  {
    name: 'Ladder lines',
    description: 'Two rails with rungs between them.',
    plan: {
      width: 16,
      height: 8,
      ground: null,
      colours: ['Buoy'],
      motifs: [line('rail', 'Rail', 8, 0.9, 'Buoy'), line('rung', 'Rung', 7, 0.9, 'Buoy')],
      placings: [at('rail', 4.5, 4, 90), at('rail', 11.5, 4, 90), at('rung', 8, 4)],
    },
  },
  {
    name: 'Wide bands',
    description: 'Bands of five widths over 40 mm.',
    plan: measured('bands', {
      numbers: { angle: 0 },
      bands: [
        [14, 'Deep water'],
        [4, 'Chalk'],
        [6, 'Pool'],
        [4, 'Chalk'],
        [12, 'Buoy'],
      ],
      ground: null,
    }),
  },
];

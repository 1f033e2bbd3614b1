import {
  BRICK,
  HALF_DROP,
  at,
  block,
  dot,
  drawing,
  filled,
  line,
  measured,
  raised,
  ringPiece,
  stroked,
  wave,
  type ColourName,
  type DemoPattern,
} from './draw';

const lifebuoy = (id: string, base: ColourName, bands: ColourName) =>
  drawing(id, 'Ring', 22, 22, [
    filled(ringPiece(5.5, 11, 0, 180), base),
    filled(ringPiece(5.5, 11, 180, 360), base),
    ...[20, 110, 200, 290].map((from) => filled(ringPiece(5.5, 11, from, from + 50), bands)),
  ]);

const gull = (id: string, name: string, colour: ColourName) =>
  drawing(id, name, 24, 8, [
    filled(
      'M -12 1.4 C -8.6 -3.4 -3.4 -4 0 0.4 C 3.4 -4 8.6 -3.4 12 1.4 C 8.2 -1.2 3.6 -0.8 0.5 4 L -0.5 4 C -3.6 -0.8 -8.2 -1.2 -12 1.4 Z',
      colour,
    ),
  ]);

const tile = (id: string, colour: ColourName) =>
  block(id, `Tile, ${colour.toLowerCase()}`, 9.1, 9.1, colour, 0.7);

/** Which of the four tiles lies where: rows of the mosaic in "Shallow End". */
const MOSAIC = ['pspsd', 'sppfp', 'pfpps', 'dppsp', 'psfpp'];

export const LIDO: DemoPattern[] = [
  {
    name: 'Lane Line',
    description: 'Floats on their cable, as they part the lanes.',
    plan: {
      width: 60,
      height: 24,
      ground: 'Foam',
      colours: ['Buoy', 'Deep water', 'Pool', 'Foam'],
      motifs: [
        line('cable', 'Cable', 60, 0.9, 'Pool'),
        block('red', 'Float, buoy', 28, 10, 'Buoy', 5),
        block('blue', 'Float, deep water', 28, 10, 'Deep water', 5),
      ],
      placings: [at('cable', 30, 12), at('red', 15, 12), at('blue', 45, 12)],
    },
  },
  {
    name: 'Ripple Row',
    description: 'Two waves that part and meet; the water on a still morning.',
    plan: {
      width: 48,
      height: 28,
      ground: 'Pool',
      fade: {
        along: 'down',
        stops: [
          [0, 'Pool'],
          [0.5, 'Shallow'],
        ],
      },
      colours: ['Foam', 'Pool', 'Shallow'],
      motifs: [
        drawing('crest', 'Crest', 48, 14, [stroked(wave(48, 6), 'Foam', 2.2)]),
        drawing('trough', 'Trough', 48, 14, [stroked(wave(48, -6), 'Foam', 2.2)]),
        dot('glint', 'Glint', 3.2, 'Foam'),
      ],
      placings: [
        at('crest', 24, 14),
        at('trough', 24, 14),
        at('glint', 24, 14),
        at('glint', 0, 14),
        at('glint', 12, 0),
        at('glint', 36, 0),
      ],
    },
  },
  {
    name: 'Ring Toss',
    description: 'Lifebuoys in half-drop, for kiosk and cabin goods.',
    plan: {
      width: 56,
      height: 64,
      repeat: HALF_DROP,
      ground: 'Lotion',
      colours: ['Chalk', 'Deep water', 'Buoy', 'Lotion'],
      motifs: [
        raised(lifebuoy('ring', 'Chalk', 'Deep water'), 0.7, 'Deep water'),
        dot('drop', 'Drop', 4, 'Buoy'),
      ],
      placings: [
        at('ring', 15, 17, 12),
        at('drop', 43, 17),
        at('ring', 29, 49, -20, 0.72),
        at('drop', 5, 43, 0, 0.7),
      ],
    },
  },
  {
    name: 'Duckboard',
    description: 'Wet planks round the pool, two screws each.',
    plan: {
      width: 66,
      height: 20,
      repeat: BRICK,
      ground: 'Deep water',
      colours: ['Rope', 'Deep water', 'Tar'],
      motifs: [
        block('plank', 'Plank', 64, 17.6, 'Rope', 1.2),
        dot('screw', 'Screw', 1.8, 'Tar'),
        line('grain', 'Grain', 22, 0.5, 'Tar', 'round'),
      ],
      placings: [
        at('plank', 33, 10),
        at('screw', 5, 10),
        at('screw', 61, 10),
        at('grain', 22, 6.5),
        at('grain', 42, 13.6, 0, 0.7, 1),
      ],
    },
  },
  {
    name: 'Awning',
    description: 'Kiosk stripes, even, 22 mm each.',
    plan: measured('bands', {
      numbers: { angle: 90 },
      bands: [
        [22, 'Buoy'],
        [22, null],
      ],
      ground: 'Chalk',
    }),
  },
  {
    name: 'Cold Steps',
    description: 'The ladder into deep water, seen from the side.',
    plan: {
      width: 40,
      height: 40,
      ground: 'Chalk',
      colours: ['Pool', 'Deep water', 'Chalk'],
      motifs: [
        drawing('steps', 'Steps', 40, 40, [
          stroked(
            'M -20 20 L -12 20 L -12 12 L -4 12 L -4 4 L 4 4 L 4 -4 L 12 -4 L 12 -12 L 20 -12 L 20 -20',
            'Pool',
            3.6,
            'square',
          ),
        ]),
        drawing('rail', 'Rail', 40, 40, [
          stroked(
            'M -20 20 L -12 20 L -12 12 L -4 12 L -4 4 L 4 4 L 4 -4 L 12 -4 L 12 -12 L 20 -12 L 20 -20',
            'Deep water',
            1.2,
            'square',
          ),
        ]),
      ],
      placings: [at('steps', 20, 20), at('rail', 40, 20)],
    },
  },
  {
    name: 'Towel Check',
    description: 'A woven check, 24 mm; where the threads cross the colour is full.',
    plan: measured('gingham', {
      numbers: { band: 24, gap: 24, tint: 0.55 },
      inks: ['Buoy'],
      ground: 'Chalk',
    }),
  },
  {
    name: 'Gull Drift',
    description: 'Gulls over the lawn, scattered so that none touch; small clouds in the gaps.',
    plan: {
      width: 120,
      height: 96,
      repeat: BRICK,
      ground: 'Foam',
      colours: ['Slate', 'Buoy', 'Shallow', 'Foam'],
      motifs: [
        gull('gull', 'Gull', 'Slate'),
        gull('chick', 'Young gull', 'Buoy'),
        dot('cloud', 'Cloud', 7, 'Shallow'),
      ],
      placings: [at('gull', 28, 20, -8, 1.25), at('gull', 86, 66, 10, 1.1)],
      scatter: {
        motifs: ['gull', 'cloud', 'chick', 'cloud'],
        count: 24,
        seed: 14,
        spacing: 3,
        size: { from: 0.45, to: 0.95 },
        angle: { from: -18, to: 18 },
      },
    },
  },
  {
    name: 'Locker Grid',
    description: 'Changing-room doors with vents and keys.',
    plan: {
      width: 40,
      height: 60,
      gap: [4, 4],
      ground: 'Slate',
      colours: ['Pool', 'Deep water', 'Lotion', 'Slate'],
      motifs: [
        block('door', 'Door', 40, 60, 'Pool', 2),
        line('vent', 'Vent', 20, 1.6, 'Deep water', 'round'),
        dot('key', 'Key', 5, 'Lotion'),
      ],
      placings: [
        at('door', 20, 30),
        at('vent', 20, 10),
        at('vent', 20, 15),
        at('vent', 20, 20),
        at('key', 32, 34),
      ],
    },
  },
  {
    name: 'Shallow End',
    description: 'Pool mosaic in four blues.',
    plan: {
      width: 50,
      height: 50,
      ground: 'Chalk',
      colours: ['Pool', 'Shallow', 'Foam', 'Deep water', 'Chalk'],
      motifs: [tile('p', 'Pool'), tile('s', 'Shallow'), tile('f', 'Foam'), tile('d', 'Deep water')],
      placings: MOSAIC.flatMap((row, y) => [...row].map((motif, x) => at(motif, 5 + x * 10, 5 + y * 10))),
    },
  },
  {
    name: 'Tide Rosette',
    description: 'One leaf of weed in the plane group p6m: twelve times round every centre.',
    plan: {
      width: 64,
      height: 64,
      repeat: { kind: 'group', group: 'p6mm', slant: 0 },
      ground: 'Deep water',
      colours: ['Shallow', 'Foam', 'Lotion', 'Deep water'],
      motifs: [
        drawing('leaf', 'Leaf', 22, 8, [
          filled('M -10 3 C -6 -4 4 -5 11 -2 C 6 2 -2 5 -10 3 Z', 'Shallow'),
          stroked('M -8 2.4 C -3 0 4 -1.6 9 -1.8', 'Deep water', 0.7, 'round'),
        ]),
        dot('bead', 'Bead', 3.2, 'Lotion'),
        dot('pearl', 'Pearl', 2.2, 'Foam'),
      ],
      placings: [at('leaf', 16, 4.4, 8), at('bead', 29, 3, 0, 1), at('pearl', 33, 12.5)],
    },
  },
  {
    name: 'Diving Board',
    description: 'A tower and its board, turned over across and down.',
    plan: {
      width: 44,
      height: 36,
      gap: [6, 6],
      repeat: { kind: 'mirror' },
      ground: 'Lotion',
      colours: ['Deep water', 'Buoy', 'Chalk', 'Lotion'],
      motifs: [
        drawing('tower', 'Tower', 40, 32, [
          filled(
            'M -20 16 L -20 -8 L 6 -8 L 6 -12 L 20 -12 L 20 -9 L 10 -9 L 10 -5 L -14 -5 L -14 16 Z',
            'Deep water',
          ),
          stroked('M -17 12 L -17 -3', 'Chalk', 1),
        ]),
        dot('ball', 'Ball', 7, 'Buoy'),
      ],
      placings: [at('tower', 22, 19), at('ball', 33, 24)],
    },
  },
  {
    name: 'Parasol Row',
    description: 'Parasols from the diving tower, in brick.',
    plan: {
      width: 58,
      height: 50,
      repeat: BRICK,
      ground: 'Shallow',
      colours: ['Buoy', 'Chalk', 'Lotion', 'Pool', 'Shallow'],
      motifs: [
        dot('shade', 'Shade', 38, 'Pool'),
        drawing('parasol', 'Parasol', 38, 38, [
          ...[0, 90, 180, 270].map((from) => filled(ringPiece(0, 19, from, from + 45), 'Buoy')),
          ...[45, 135, 225, 315].map((from) => filled(ringPiece(0, 19, from, from + 45), 'Chalk')),
        ]),
        dot('cap', 'Cap', 5, 'Lotion'),
      ],
      placings: [at('shade', 31.5, 27.5), at('parasol', 29, 25, 11), at('cap', 29, 25)],
    },
  },
];

import { measured, type DemoPattern } from './draw';

/** Patterns that ship with Isle: plain, measured, protected. Keep one as new to change it. */
export const STOCK: DemoPattern[] = [
  {
    name: 'Fine stripe',
    description: 'Stripes of 1 pt every 4 pt.',
    plan: measured('stripes', {
      numbers: { width: 1, pitch: 4 },
      inks: ['Slate'],
      ground: null,
      measure: 'pt',
    }),
  },
  {
    name: 'Fine hatch',
    description: 'A hatch of 1 pt every 3 pt at 45°.',
    plan: measured('hatch', {
      numbers: { width: 1, pitch: 3, angle: 45 },
      inks: ['Slate', 'Slate'],
      ground: null,
      measure: 'pt',
    }),
  },
  {
    name: 'Cross-hatch',
    description: 'Two sets of hairlines at right angles.',
    plan: measured('hatch', {
      numbers: { width: 0.5, pitch: 4, angle: 45, width2: 0.5, pitch2: 4, turn: 90 },
      choices: { second: 'yes' },
      inks: ['Slate', 'Slate'],
      ground: null,
      measure: 'pt',
    }),
  },
  {
    name: 'Even dots',
    description: 'Dots with six neighbours each, 2.5 mm every 6 mm.',
    plan: measured('dots', {
      numbers: { diameter: 2.5, pitch: 6 },
      choices: { layout: 'hexagonal' },
      inks: ['Slate'],
      ground: null,
    }),
  },
  {
    name: 'Graph sheet',
    description: 'A grid of 5 mm.',
    plan: measured('grid', { numbers: { across: 5, down: 5, width: 0.18 }, inks: ['Pool'], ground: 'Chalk' }),
  },
  {
    name: 'Chessboard',
    description: 'Checks of 10 mm.',
    plan: measured('checks', { numbers: { side: 10, down: 10 }, inks: ['Slate'], ground: 'Chalk' }),
  },
  {
    name: 'Small gingham',
    description: 'A woven check of 4 mm.',
    plan: measured('gingham', { numbers: { band: 4, gap: 4, tint: 0.5 }, inks: ['Moss'], ground: 'Chalk' }),
  },
  {
    name: 'Sharp zigzag',
    description: 'A zigzag line of 2 mm, pointed.',
    plan: measured('zigzag', {
      numbers: { length: 12, height: 7, width: 2, pitch: 7 },
      inks: ['Buoy'],
      ground: 'Chalk',
    }),
  },
  {
    name: 'Roof scales',
    description: 'Overlapping scales with a rim.',
    plan: measured('scallop', {
      numbers: { diameter: 16, down: 6, width: 1 },
      inks: ['Shallow', 'Deep water'],
      ground: 'Deep water',
    }),
  },
  {
    name: 'Running bond',
    description: 'Bricks of 21 × 6.5 mm with a joint of 1 mm.',
    plan: measured('bricks', {
      numbers: { length: 21, height: 6.5, joint: 1, step: 0.5, radius: 0.3 },
      inks: ['Buoy'],
      ground: 'Rope',
    }),
  },
  {
    name: 'Target rings',
    description: 'Three rings in each, in brick.',
    plan: measured('rings', {
      numbers: { diameter: 18, width: 1.4, count: 3, pitch: 20 },
      choices: { layout: 'brick' },
      inks: ['Deep water'],
      ground: 'Foam',
    }),
  },
  {
    name: 'Tooth row',
    description: 'Triangles, point to foot.',
    plan: measured('triangles', { numbers: { side: 10, height: 8.66 }, inks: ['Plum'], ground: 'Lotion' }),
  },
];
